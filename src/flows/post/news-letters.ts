/** What somebody at the desk wanted to hear of, gathered in one mail. */
import { newsPath, newsWords } from '@/core/news/news-words';
import { deskLocale } from '@/core/writing/writing';
import { newsOfMail } from '@/db/news';
import { writingOf } from '@/db/people';
import { services } from '@/outside/services';
import { ours } from './person-letters';
import type { Subject, Written } from './subject';

/** So many lines stand in a mail; the rest is told by their number. */
const MOST_LINES = 40;

/** Null where nothing of it is left. */
export async function ownNewsMail({ ctx, message, business }: Subject): Promise<Written | null> {
  const { newsId = '', personId = '' } = message.details;
  const news = await ctx.read((db) => newsOfMail(db, newsId));
  const [first] = news;
  if (!first) return null;
  const locale = deskLocale(business.paperLocale, await ctx.read((db) => writingOf(db, personId)));
  const { publicUrl } = services();
  const told = news.map((one) => {
    const words = newsWords(one, { currency: one.currency, locale, zone: business.zone });
    return { ...words, link: `${publicUrl}${newsPath(one)}` };
  });
  const [only] = told;
  const heading = told.length === 1 && only ? only.what : `${told.length} news`;
  return ours({
    subject: `${business.name}: ${told.length === 1 && only ? [only.what, only.about].filter(Boolean).join(', ') : heading}`,
    sum: heading,
    under: business.name,
    words: told.length > MOST_LINES ? [`The first ${MOST_LINES} of them; the rest stands at the desk.`] : [],
    rows: told.slice(0, MOST_LINES).map(({ what, about, note, link }) => ({
      label: [about, note].filter(Boolean).join(': '),
      value: what,
      link,
    })),
    button: { words: 'Open the desk', link: `${publicUrl}/today` },
    last: 'You chose to hear of this by mail. What, and between which hours not, is yours to choose under You.',
  });
}

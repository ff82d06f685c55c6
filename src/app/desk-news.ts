import type { Business } from '@/core/business/business';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { newsPath, newsWords } from '@/core/news/news-words';
import type { Actor } from '@/flows/door/rights';
import { deskNews } from '@/flows/house/own-settings';
import type { NewsHere } from '@/ui/house/desk-news';

/** What whoever is signed in hears of at the desk, as its list shows it. */
export async function newsHere(actor: Actor, { deskLocale, zone }: Business, now: Date): Promise<NewsHere> {
  const { unseen, news, isQuiet } = await deskNews(actor);
  const today = dateInZone(now, zone);
  return {
    unseen,
    quiet: isQuiet,
    news: news.map((one) => {
      const on = dateInZone(one.at, zone);
      return {
        ...newsWords(one, { currency: one.currency, locale: deskLocale, zone }),
        id: Number(one.id),
        when: on === today ? clockTime(one.at, zone) : shortDate(on, deskLocale, { weekday: true }),
        path: newsPath(one),
        seen: one.seen,
      };
    }),
  };
}

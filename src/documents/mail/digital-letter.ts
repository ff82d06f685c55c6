import { dateInZone } from '@/core/dates/zone';
import type { Seller } from '@/core/invoice/printed';
import { wordsOf } from '@/core/words/words';
import { day, type Letter, letter } from './letter';

/** What a letter about things to download is made of. */
export type DigitalTold = {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly things: readonly {
    readonly what: string;
    readonly words: string;
    readonly file: string;
    readonly mostDownloads: number | null;
    readonly expiresAt: Date | null;
  }[];
  readonly zone: string;
  readonly link: string;
};

/** The letter with which a customer gets what they bought as a file or a text: texts stand in it, files on the page that it opens. */
export function digitalLetter({ locale, seller, accent, things, zone, link }: DigitalTold): Letter {
  const words = wordsOf(locale);
  const { digital } = words;
  return letter({
    locale,
    seller,
    accent,
    subject: digital.subject(seller.name),
    lead: seller.name,
    sum: digital.heading,
    under: '',
    // A paragraph for each line of a text: it may be a list of codes.
    words: [
      digital.lead,
      ...things.flatMap(({ what, words: text }) => (text ? [`${what}${words.colon}`, ...text.split('\n')] : [])),
    ],
    rows: things
      .filter(({ file }) => file)
      .map(({ what, mostDownloads, expiresAt }) => ({
        label: what,
        value: [
          mostDownloads === null ? '' : digital.times(mostDownloads),
          expiresAt ? digital.until(day(dateInZone(expiresAt, zone), locale)) : '',
        ]
          .filter(Boolean)
          .join(', '),
      })),
    button: { words: digital.see, link },
    last: words.answerThis(seller.name),
  });
}

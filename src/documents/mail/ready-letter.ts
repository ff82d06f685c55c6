import type { Seller } from '@/core/invoice/printed';
import { wordsOf } from '@/core/words/words';
import { type Letter, letter } from './letter';

/** What a letter about things at the counter is made of; `left` as written, `where` the counter's address line by line. */
export type ReadyTold = {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly number: string;
  readonly lines: readonly { readonly what: string; readonly left: string }[];
  readonly where: readonly string[];
  readonly link: string;
};

/** The letter that tells whoever bought something that it can be fetched, and where. */
export function readyLetter({ locale, seller, accent, number, lines, where, link }: ReadyTold): Letter {
  const words = wordsOf(locale);
  const { digital } = words;
  return letter({
    locale,
    seller,
    accent,
    subject: digital.readySubject(seller.name),
    lead: seller.name,
    sum: digital.ready,
    under: number,
    words: [digital.readyLead, ...(where.length > 0 ? [where.join(', ')] : [])],
    rows: lines.map(({ what, left }) => ({ label: what, value: left })),
    button: { words: digital.readySee, link },
    last: words.answerThis(seller.name),
  });
}

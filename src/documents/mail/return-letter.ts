import type { Seller } from '@/core/invoice/printed';
import { wordsOf } from '@/core/words/words';
import { type Letter, letter } from './letter';

/** What a letter about a return is made of; `answer` is what the business wrote. */
export type ReturnTold = {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly allowed: boolean;
  readonly answer: string;
  /** Whether a label for it lies on the page. */
  readonly hasLabel: boolean;
  readonly lines: readonly { readonly what: string; readonly quantity: string }[];
  readonly link: string;
};

/** The letter with which a customer hears whether something can be sent back; a label is on the page that it opens. */
export function returnLetter({ locale, seller, accent, allowed, answer, hasLabel, lines, link }: ReturnTold): Letter {
  const words = wordsOf(locale);
  const { returning } = words;
  return letter({
    locale,
    seller,
    accent,
    subject: returning.subject(seller.name),
    lead: seller.name,
    sum: allowed ? returning.allowed : returning.refused,
    under: '',
    words: [allowed ? returning.allowedHow : returning.refusedHow, ...(answer ? [answer] : [])],
    rows: lines.map(({ what, quantity }) => ({ label: what, value: quantity })),
    button: { words: hasLabel ? returning.seeLabel : returning.see, link },
    last: words.answerThis(seller.name),
  });
}

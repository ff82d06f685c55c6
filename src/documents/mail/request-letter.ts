import type { Seller } from '@/core/invoice/printed';
import { wordsOf } from '@/core/words/words';
import { type Letter, letter } from './letter';

/** A request to pay what an offer asks for, with some of it filled in already. */
export function requestLetter(of: {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly title: string;
  readonly toName: string;
  readonly sum: string;
  readonly text: string;
  readonly link: string;
}): Letter {
  const words = wordsOf(of.locale);
  return letter({
    locale: of.locale,
    seller: of.seller,
    accent: of.accent,
    subject: words.offer.requestSubject(of.seller.name, of.title),
    lead: words.offer.filledFor(of.toName),
    sum: of.sum || of.title,
    under: of.sum ? of.title : '',
    words: [of.text || words.offer.requestText],
    rows: [],
    button: { words: words.offer.seeAndPay, link: of.link },
    last: words.answerThis(of.seller.name),
  });
}

import { monthText } from '../dates/date-text';
import { type CardSeen, cardText } from '../payment/outcome';

/** The month until which a bank account is good. */
export const NO_END = '9999-12';

/** A card or bank account that the processor keeps, by its name there; `expires` is the last month in which it is good, `YYYY-MM`. */
export type KeptCard = CardSeen & { readonly id: string; readonly expires: string; readonly fingerprint: string };

/** A card or account in its holder's language: `Corvid ·0819, good until March 2029`, `Konto ·3471`. */
export function heldText(
  card: CardSeen & { readonly expires: string },
  locale: string,
  words: { readonly bankAccount: string; readonly until: (month: string) => string },
): string {
  if (card.expires === NO_END) return cardText({ ...card, scheme: words.bankAccount });
  return `${cardText(card)}, ${words.until(monthText(card.expires, locale))}`;
}

/** A card on file as screens show it. */
export type ShownCard = {
  readonly id: string;
  readonly words: string;
  readonly state: 'good' | 'refusing';
  readonly trouble: string;
  /** It is over before its next charge, or soon. */
  readonly ending: boolean;
};

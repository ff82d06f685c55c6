/** Keys by which other programs come in. */
import { type Holds, mayDo, type Right } from '../person/rights';

/** What a key can be given: what is done with customers and money, never who may what, nor how the business is set. */
export const KEY_RIGHTS = ['see', 'ask', 'take', 'give-back', 'records'] as const satisfies readonly Right[];
export type KeyRight = (typeof KEY_RIGHTS)[number];

/** What each is, in the words of what a program then can do. */
export const KEY_RIGHT_WORDS: Readonly<Record<KeyRight, string>> = {
  see: 'Read customers, items, invoices, links, plans, charges and payments: all else needs this too',
  ask: 'Write and send invoices, links and plans',
  take: 'Write payments down',
  'give-back': 'Refund, up to the sum above which a person is asked again',
  records: 'Change customers and items',
};

/** How long a key can be good at most, in days. */
export const MOST_KEY_DAYS = 366;

/** What a key may do now: what it was given, as far as whoever made it may still do that. */
export const keyMay = (rights: readonly string[], maker: Holds): readonly KeyRight[] =>
  KEY_RIGHTS.filter((right) => rights.includes(right) && mayDo(maker, right));

/** How many requests a key has in a minute. */
export const REQUESTS_A_MINUTE = 240;
/** For how long an answer is given again under the same key of a request, in hours. */
export const ANSWER_HOURS = 24;

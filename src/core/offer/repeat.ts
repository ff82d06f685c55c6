import type { Choice } from './choice';

/** How often a payment can be repeated. */
export type OfferRhythm = { readonly unit: 'week' | 'month' | 'year'; readonly every: number };

/** That a payment may (or must) be repeated: the first one starts a billing plan. */
export type OfferRepeat = {
  readonly rhythms: readonly OfferRhythm[];
  /** Whether paying once is possible too. */
  readonly once: boolean;
  /** After so many payments in all it is over; null where it goes on. */
  readonly count: number | null;
};

type Repeated = { readonly repeat: OfferRepeat | null };

export const MOST_RHYTHMS = 4;

/** A rhythm as it stands in a choice, `month:1`. */
export const rhythmKey = ({ unit, every }: OfferRhythm): string => `${unit}:${every}`;

/** The rhythm that a payer chose; null for paying once. */
export const chosenRhythm = ({ repeat }: Repeated, choice: Pick<Choice, 'repeat'>): OfferRhythm | null =>
  repeat?.rhythms.find((one) => rhythmKey(one) === choice.repeat) ?? null;

/** What is chosen to begin with: once where that is possible, else the first rhythm. */
export const begunRecurring = ({ repeat }: Repeated): string =>
  repeat && !repeat.once && repeat.rhythms[0] ? rhythmKey(repeat.rhythms[0]) : '';

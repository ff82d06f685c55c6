import type { ReceiptStyle } from '../business/business';
import type { CalendarDate } from '../dates/calendar-date';
import type { Payer, Seller } from '../invoice/printed';

/** One gift as its receipt says it; minor units, what was given back already off. */
export type Gift = {
  readonly on: CalendarDate;
  readonly receipt: string;
  readonly what: string;
  readonly minor: bigint;
};

/** All gifts of somebody in a year and one currency, for the tax office. */
export type GiftLetter = {
  readonly year: number;
  readonly currency: string;
  readonly locale: string;
  readonly seller: Seller;
  readonly payer: Payer;
  readonly gifts: readonly Gift[];
  readonly style: ReceiptStyle;
  readonly accent: string;
  readonly logoId: string | null;
};

/** What all gifts come to, in minor units. */
export const giftSum = ({ gifts }: Pick<GiftLetter, 'gifts'>): bigint =>
  gifts.reduce((sum, { minor }) => sum + minor, 0n);

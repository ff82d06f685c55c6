import type { CalendarDate } from '../dates/calendar-date';
import type { Payer, Seller } from '../invoice/printed';

/** An authorisation as it is printed: to be signed, or as it was given. Sums in minor units. */
export type AuthorisationPaper = {
  readonly locale: string;
  readonly currency: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly payer: Payer;
  readonly text: string;
  /** The charges that it is about; none for single purchases. */
  readonly charges: readonly { readonly on: CalendarDate; readonly minor: number }[];
  /** How it was given, in lines; none while it waits for a signature. */
  readonly given: readonly string[];
  readonly withdrawn: string;
};

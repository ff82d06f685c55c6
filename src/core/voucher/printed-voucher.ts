import type { CalendarDate } from '../dates/calendar-date';
import type { Seller } from '../invoice/printed';

/** A voucher as its paper and its mail show it; minor units. */
export type PrintedVoucher = {
  readonly locale: string;
  readonly seller: Seller;
  readonly accent: string;
  readonly logoId: string | null;
  readonly title: string;
  /** As printed, in groups. */
  readonly code: string;
  readonly currency: string;
  readonly valueMinor: number;
  readonly expiresOn: CalendarDate | null;
  readonly toName: string;
  readonly fromName: string;
  readonly message: string;
  /** Its page, where what is left of it can be seen. */
  readonly link: string;
};

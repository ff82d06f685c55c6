import type { CalendarDate } from '../dates/calendar-date';

/** An invoice's state for people; Overdue is derived from today. */
export type InvoiceState = 'Draft' | 'Sent' | 'Seen' | 'Part-paid' | 'Paid' | 'Overdue' | 'Cancelled';

/** What an invoice's kept status says while it is open, whether late or not. */
export const OPEN_STATUSES = ['sent', 'seen', 'part'] as const;

/** What is kept of an invoice that its state follows from; amounts in minor units. */
export type InvoiceStatus = {
  readonly stage: 'draft' | 'sent' | 'cancelled';
  readonly seen: boolean;
  readonly totalMinor: bigint;
  readonly dueMinor: bigint;
  readonly dueOn: CalendarDate | null;
};

/** @param today in the business's zone; on the due date itself nothing is late yet */
export function invoiceState(status: InvoiceStatus, today: CalendarDate): InvoiceState {
  if (status.stage === 'draft') return 'Draft';
  if (status.stage === 'cancelled') return 'Cancelled';
  if (status.dueMinor <= 0n) return 'Paid';
  if (status.dueOn !== null && status.dueOn < today) return 'Overdue';
  if (status.dueMinor < status.totalMinor) return 'Part-paid';
  return status.seen ? 'Seen' : 'Sent';
}

/** The share paid, 0 to 1, for the rosette only: never for a sum. */
export const sharePaid = ({ totalMinor, dueMinor }: InvoiceStatus): number =>
  totalMinor <= 0n ? 0 : Math.min(1, Math.max(0, Number(totalMinor - dueMinor) / Number(totalMinor)));

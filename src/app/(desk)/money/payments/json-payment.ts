import type { CalendarDate } from '@/core/dates/calendar-date';
import type { PaymentRow } from '@/flows/payment/payment-list';
import { PLACEMENT_WORDS } from '@/ui/offer/placement-words';

/** The channels as people call them. */
export const CHANNEL_WORDS: Readonly<Record<PaymentRow['channel'], string>> = {
  invoice: 'Invoice',
  link: 'Payment link',
  page: 'Hosted page',
  button: 'Button',
  plan: 'Billing plan',
  desk: 'At the desk',
};

/** Where what was paid stands: the invoice, or the offer. */
export function subjectPath({
  invoiceId,
  offerId,
  channel,
}: Pick<PaymentRow, 'invoiceId' | 'offerId' | 'channel'>): string {
  if (invoiceId) return `/ask/invoices/${invoiceId}`;
  const placement = channel === 'page' || channel === 'button' ? channel : 'link';
  return `${PLACEMENT_WORDS[placement].path}/${offerId}`;
}

/** A payment's state for people; what was given back shows, unless it was all voided. */
export function paymentState(
  payment: Pick<PaymentRow, 'state' | 'refundedMinor' | 'amountMinor' | 'tipMinor' | 'dispute' | 'cameBack'>,
) {
  if (payment.state === 'pending') return 'Pending';
  if (payment.state === 'refused') return 'Refused';
  if (payment.state === 'voided') return 'Voided';
  if (payment.dispute === 'open') return 'Disputed';
  if (payment.dispute === 'lost') return 'Dispute lost';
  if (payment.cameBack) return 'Came back';
  if (payment.refundedMinor === 0n) return 'Paid';
  return payment.refundedMinor < payment.amountMinor + payment.tipMinor ? 'Part-refunded' : 'Refunded';
}

/** The month's name for a group's head, `today` apart. */
export function groupOf(on: CalendarDate, today: CalendarDate, locale: string): string {
  if (on === today) return 'Today';
  return new Intl.DateTimeFormat(locale, { timeZone: 'UTC', month: 'long', year: 'numeric' }).format(
    new Date(`${on}T12:00:00Z`),
  );
}

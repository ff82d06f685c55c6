import type { CalendarDate } from '@/core/dates/calendar-date';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import type { PaymentRow } from '@/flows/payment/payment-list';
import type { ListRow } from '@/ui/list/list-row';
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

/** How money came, as people call it. */
export const METHOD_WORDS = {
  card: 'by card',
  transfer: 'by bank transfer',
  cash: 'in cash',
  cheque: 'by cheque',
  other: 'another way',
} as const;

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
export function paymentState(payment: Pick<PaymentRow, 'state' | 'refundedMinor' | 'amountMinor' | 'tipMinor'>) {
  if (payment.state === 'pending') return 'Pending';
  if (payment.state === 'refused') return 'Refused';
  if (payment.state === 'voided') return 'Voided';
  if (payment.refundedMinor === 0n) return 'Paid';
  return payment.refundedMinor < payment.amountMinor + payment.tipMinor ? 'Part-refunded' : 'Refunded';
}

/** The month's name for a group's head, `today` and `yesterday` apart. */
function groupOf(on: CalendarDate, today: CalendarDate, locale: string): string {
  if (on === today) return 'Today';
  return new Intl.DateTimeFormat(locale, { timeZone: 'UTC', month: 'long', year: 'numeric' }).format(
    new Date(`${on}T12:00:00Z`),
  );
}

/** A payment as its list shows it. */
export function jsonPayment(
  row: PaymentRow,
  place: { zone: string; locale: string; currency: string },
  today: CalendarDate,
): ListRow {
  const at = row.settledAt ?? row.startedAt;
  const on = dateInZone(at, place.zone);
  const state = paymentState(row);
  return {
    id: row.id,
    href: `/money/payments/${row.id}`,
    name: row.customer,
    under: `${state} · ${CHANNEL_WORDS[row.channel]} ${row.subject}`,
    state,
    share: row.state === 'paid' ? 1 : 0,
    minor: jsonMinor(row.amountMinor),
    currency: row.currency,
    foreign: row.currency !== place.currency,
    when: on === today ? clockTime(at, place.zone) : shortDate(on, place.locale, { weekday: true }),
    late: row.state === 'refused',
    group: groupOf(on, today, place.locale),
  };
}

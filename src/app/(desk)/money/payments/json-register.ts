import type { CalendarDate } from '@/core/dates/calendar-date';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { isAtProcessor, METHOD_WORDS } from '@/core/payment/methods';
import type { RegisterRow, RegisterSum } from '@/flows/register/register';
import type { ListRow } from '@/ui/list/list-row';
import type { JsonSum } from '@/ui/register/register-sums';
import type { RosetteState } from '@/ui/rosette-geometry';
import { CHANNEL_WORDS, groupOf, paymentState } from './json-payment';

/** How a refund stands, in words and as its mark. */
const REFUND_STATES: Readonly<Record<'done' | 'pending' | 'refused', { words: string; state: RosetteState }>> = {
  done: { words: 'Refund', state: 'Refund' },
  pending: { words: 'Refund being asked for', state: 'Pending' },
  refused: { words: 'Refund refused', state: 'Refused' },
};

/** Which card, or by which way with which reference. */
const howOf = ({ method, cardScheme, cardLast4, reference }: RegisterRow): string =>
  isAtProcessor(method) && cardLast4
    ? `${cardScheme} ·${cardLast4}`
    : [METHOD_WORDS[method], reference].filter(Boolean).join(' ');

/** Through what it was paid: the invoice's number, or the offer's name; and the plan or the desk that brought it. */
const throughOf = ({ invoiceId, channel, subject }: RegisterRow): string[] => {
  if (!invoiceId) return [`${CHANNEL_WORDS[channel]} ${subject}`];
  return [...(channel === 'plan' ? ['Plan'] : channel === 'desk' ? ['Desk'] : []), `Invoice ${subject}`];
};

/** A row of the register as its list shows it: what went out below 0. */
export function jsonRegisterRow(
  row: RegisterRow,
  place: { zone: string; deskLocale: string; currency: string },
  today: CalendarDate,
): ListRow {
  const on = dateInZone(row.at, place.zone);
  const isBack = row.kind === 'refund';
  const paid = paymentState({
    state: row.state === 'done' ? 'paid' : row.state,
    amountMinor: row.amountMinor,
    tipMinor: 0n,
    refundedMinor: row.refundedMinor,
    dispute: row.dispute,
    cameBack: row.cameBack,
  });
  const { words, state }: { words: string; state: RosetteState } =
    isBack && row.cameBack
      ? { words: 'Debit came back', state: 'Came back' }
      : isBack
        ? REFUND_STATES[row.state === 'pending' || row.state === 'refused' ? row.state : 'done']
        : { words: paid, state: paid };
  return {
    id: row.id,
    href: `/money/payments/${row.paymentId}`,
    name: row.customer,
    under: [words, howOf(row), ...throughOf(row)].join(' · '),
    state,
    share: row.state === 'paid' && !isBack ? 1 : 0,
    minor: jsonMinor(isBack ? -row.amountMinor : row.amountMinor),
    currency: row.currency,
    foreign: row.currency !== place.currency,
    when: on === today ? clockTime(row.at, place.zone) : shortDate(on, place.deskLocale, { weekday: true }),
    late: row.state === 'refused' || (!isBack && (row.cameBack || row.dispute === 'open' || row.dispute === 'lost')),
    group: groupOf(on, today, place.deskLocale),
  };
}

export const jsonRegisterSum = ({ currency, payments, paidMinor, refunds, refundedMinor }: RegisterSum): JsonSum => ({
  currency,
  payments,
  paid: jsonMinor(paidMinor),
  refunds,
  refunded: jsonMinor(refundedMinor),
});

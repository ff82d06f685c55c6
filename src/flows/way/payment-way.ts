import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { statementDayOf } from '@/db/bank-lines';
import type { Business } from '@/db/businesses';
import { creditsOf } from '@/db/credit-notes';
import { closedTo } from '@/db/day-batches';
import { type Dispute, disputeOfPayment } from '@/db/disputes';
import type { PaymentRow } from '@/db/payments';
import { type PayoutRow, payoutOfDay } from '@/db/payouts';
import type { Db } from '@/db/pool';
import { type Refund, refundsOf } from '@/db/refunds';

/** How far the money of a payment has come, up to the bank and back. */
export type PaymentWay = {
  readonly row: PaymentRow;
  readonly refunds: readonly Refund[];
  /** The day whose closing holds it; null for what has no day yet. */
  readonly day: CalendarDate | null;
  readonly isDayClosed: boolean;
  /** The payout of the business in which that day is; null where in none yet, or for what is no card's. */
  readonly payout: PayoutRow | null;
  /** On which day's statement of the bank it, or its payout, stands; null for none. */
  readonly onStatement: Awaited<ReturnType<typeof statementDayOf>>;
  /** What its card's holder asked their bank to get back; null where nothing. */
  readonly dispute: Dispute | null;
  /** Credit notes by id, as far as refunds of it made some. */
  readonly creditNumbers: Readonly<Record<string, string>>;
};

export async function wayOf(db: Db, { zone }: Business, row: PaymentRow): Promise<PaymentWay> {
  const closed = await closedTo(db);
  const day = row.settledAt && row.state !== 'refused' ? dateInZone(row.settledAt, zone) : null;
  const payout = day && row.saleId ? await payoutOfDay(db, day, row.currency) : null;
  const credits = row.invoiceId ? await creditsOf(db, row.invoiceId) : [];
  return {
    row,
    refunds: await refundsOf(db, row.id),
    day,
    isDayClosed: day !== null && closed !== null && day <= closed,
    payout,
    onStatement: await statementDayOf(db, payout ? { payoutId: payout.id } : { paymentId: row.id }),
    dispute: await disputeOfPayment(db, row.id),
    creditNumbers: Object.fromEntries(credits.map(({ id, number }) => [id, number])),
  };
}

/** The same of several payments. */
export async function waysOf(db: Db, business: Business, rows: readonly PaymentRow[]): Promise<PaymentWay[]> {
  const ways: PaymentWay[] = [];
  for (const row of rows) ways.push(await wayOf(db, business, row));
  return ways;
}

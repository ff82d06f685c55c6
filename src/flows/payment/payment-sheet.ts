import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { TimelineLine } from '@/core/timeline/timeline';
import { statementDayOf } from '@/db/bank-lines';
import { type Business, businessById } from '@/db/businesses';
import { chargesByIds } from '@/db/charges';
import { creditsOf } from '@/db/credit-notes';
import { closedTo } from '@/db/day-batches';
import { type Dispute, disputeOfPayment } from '@/db/disputes';
import { type PaymentRow, paymentById, paymentRow } from '@/db/payments';
import { type PayoutRow, payoutOfDay } from '@/db/payouts';
import { planById } from '@/db/plans';
import { receiptOfPayment } from '@/db/receipts';
import { orderTimeline, timelineOf } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { mayVoid, type RefundSubject, refundSubject } from './refund-subject';

/** A payment with all that its sheet shows. */
export type PaymentSheet = {
  readonly row: PaymentRow;
  readonly subject: RefundSubject;
  readonly business: Business;
  readonly today: CalendarDate;
  readonly timeline: TimelineLine[];
  /** The business's own reference on the receipt. */
  readonly ownReference: string;
  readonly mayVoid: boolean;
  /** The day whose closing holds it; null for what has no day yet. */
  readonly day: CalendarDate | null;
  readonly isDayClosed: boolean;
  /** The payout of the business in which that day is; null where in none yet, or for what is no card's. */
  readonly payout: PayoutRow | null;
  /** On which day's statement of the bank it, or its payout, stands; null for none. */
  readonly onStatement: Awaited<ReturnType<typeof statementDayOf>>;
  /** The running plan whose charge it was. */
  readonly plan: { readonly id: string; readonly name: string; readonly runs: boolean } | null;
  /** What its card's holder asked their bank to get back; null where nothing. */
  readonly dispute: Dispute | null;
  /** Credit notes by id, as far as refunds of it made some. */
  readonly creditNumbers: Readonly<Record<string, string>>;
};

/** @throws Refusal `not-found` */
export const paymentSheet = desk('see').read(async (db, id: string): Promise<PaymentSheet> => {
  const row = found(await paymentRow(db, id));
  const payment = found(await paymentById(db, id));
  const subject = await refundSubject(db, payment);
  const business = await businessById(db);
  const closed = await closedTo(db);
  const day = payment.settledAt && payment.state !== 'refused' ? dateInZone(payment.settledAt, business.zone) : null;
  const [charge] = payment.chargeId ? await chargesByIds(db, [payment.chargeId]) : [];
  const payout = day && payment.saleId ? await payoutOfDay(db, day, payment.currency) : null;
  const plan = charge ? await planById(db, charge.planId) : null;
  const credits = payment.invoiceId ? await creditsOf(db, payment.invoiceId) : [];
  return {
    row,
    subject,
    business,
    today: dateInZone(db.now, business.zone),
    timeline: payment.orderId
      ? await orderTimeline(db, payment.orderId)
      : await timelineOf(db, found(payment.invoiceId)),
    ownReference: (await receiptOfPayment(db, id))?.printed.ownReference ?? '',
    mayVoid: await mayVoid(db, payment),
    day,
    payout,
    onStatement: await statementDayOf(db, payout ? { payoutId: payout.id } : { paymentId: id }),
    isDayClosed: day !== null && closed !== null && day <= closed,
    plan: plan && { id: plan.id, name: plan.terms.name, runs: plan.state === 'active' || plan.state === 'paused' },
    dispute: await disputeOfPayment(db, id),
    creditNumbers: Object.fromEntries(credits.map(({ id: creditId, number }) => [creditId, number])),
  };
});

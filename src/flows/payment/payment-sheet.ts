import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { TimelineLine } from '@/core/timeline/timeline';
import { type Business, businessById } from '@/db/businesses';
import { chargesByIds } from '@/db/charges';
import { type Payment, paidTogether, paymentById, paymentRow } from '@/db/payments';
import { planById } from '@/db/plans';
import { receiptOfPayment } from '@/db/receipts';
import { orderTimeline, timelineOf } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type PaymentWay, wayOf } from '@/flows/way/payment-way';
import { mayVoid, type RefundSubject, refundSubject } from './refund-subject';

/** A payment with all that its sheet shows. */
export type PaymentSheet = PaymentWay & {
  readonly subject: RefundSubject;
  readonly business: Business;
  readonly today: CalendarDate;
  readonly timeline: TimelineLine[];
  /** The business's own reference on the receipt. */
  readonly ownReference: string;
  readonly mayVoid: boolean;
  /** What else paid the same order. */
  readonly together: readonly Payment[];
  /** The running plan whose charge it was. */
  readonly plan: { readonly id: string; readonly name: string; readonly runs: boolean } | null;
};

/** @throws Refusal `not-found` */
export const paymentSheet = desk('see').read(async (db, id: string): Promise<PaymentSheet> => {
  const row = found(await paymentRow(db, id));
  const payment = found(await paymentById(db, id));
  const subject = await refundSubject(db, payment);
  const business = await businessById(db);
  const [charge] = payment.chargeId ? await chargesByIds(db, [payment.chargeId]) : [];
  const plan = charge ? await planById(db, charge.planId) : null;
  return {
    ...(await wayOf(db, business, row)),
    subject,
    together: payment.orderId ? await paidTogether(db, payment) : [],
    business,
    today: dateInZone(db.now, business.zone),
    timeline: payment.orderId
      ? await orderTimeline(db, payment.orderId)
      : await timelineOf(db, found(payment.invoiceId)),
    ownReference: (await receiptOfPayment(db, id))?.printed.ownReference ?? '',
    mayVoid: await mayVoid(db, payment),
    plan: plan && { id: plan.id, name: plan.terms.name, runs: plan.state === 'active' || plan.state === 'paused' },
  };
});

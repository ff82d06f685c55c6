import { dateInZone } from '@/core/dates/zone';
import type { PrintedSums } from '@/core/invoice/printed';
import { creditedSoFar, type KeptStep } from '@/core/refund/printed-document';
import type { Refundable } from '@/core/refund/refund';
import { businessById } from '@/db/businesses';
import { creditsOf } from '@/db/credit-notes';
import { closedTo } from '@/db/day-batches';
import { type Invoice, invoiceById, lockedInvoice } from '@/db/invoices';
import { lockedOrder, type Order, orderById } from '@/db/orders';
import { type PaymentShare, sharesOf } from '@/db/partners';
import { lockedPayments, type Payment, paymentById } from '@/db/payments';
import type { Db, Tx } from '@/db/pool';
import { type Refund, refundsOf, refundsOfOrder } from '@/db/refunds';
import { found } from '@/flows/door/rights';

/** A payment with all that decides about giving it back. Minor units. */
export type RefundSubject = {
  readonly payment: Payment;
  readonly invoice: Invoice | null;
  readonly order: Order | null;
  readonly printed: PrintedSums;
  /** How what it paid for was credited until now. */
  readonly steps: readonly KeptStep[];
  readonly refunds: readonly Refund[];
  /** Those of all payments that paid the same order; of an invoice's the payment's own. */
  readonly together: readonly Refund[];
  readonly shares: readonly PaymentShare[];
  readonly paid: Refundable;
  /** What the customer has to their credit on the invoice. */
  readonly creditMinor: bigint;
  /** What the invoice still asks for. */
  readonly dueMinor: bigint;
};

async function subjectOf(
  db: Db,
  payment: Payment,
  of: Pick<RefundSubject, 'invoice' | 'order'>,
): Promise<RefundSubject> {
  const { invoice, order } = of;
  const refunds = await refundsOf(db, payment.id);
  const done = refunds.filter(({ state }) => state === 'done');
  // What several payments paid together is credited together.
  const together = of.order ? await refundsOfOrder(db, of.order.id) : refunds;
  const shares = await sharesOf(db, payment.id);
  const notes = invoice ? await creditsOf(db, invoice.id) : [];
  const { amountMinor, tipMinor, feeMinor, refundedMinor } = payment;
  const balance = invoice ? invoice.totalMinor - invoice.creditedMinor - invoice.paidMinor + invoice.refundedMinor : 0n;
  return {
    payment,
    ...of,
    printed: found(invoice?.printed ?? order?.printed),
    steps: invoice
      ? notes.map(({ step }) => step)
      : together.flatMap(({ state, step }) => (state === 'done' && step) || []),
    refunds,
    together,
    shares,
    paid: {
      amountMinor,
      tipMinor,
      feeMinor,
      refundedMinor,
      tipRefundedMinor: done.reduce((sum, one) => sum + one.tipMinor, 0n),
      shares,
    },
    creditMinor: balance < 0n ? -balance : 0n,
    dueMinor: balance > 0n ? balance : 0n,
  };
}

/** The same, read. */
export async function refundSubject(db: Db, payment: Payment): Promise<RefundSubject> {
  const invoice = payment.invoiceId ? await invoiceById(db, payment.invoiceId) : null;
  const order = payment.orderId ? await orderById(db, payment.orderId) : null;
  return subjectOf(db, payment, { invoice, order });
}

/** The same, locked until the transaction ends: what was paid for first, then the payment, as everywhere. */
export async function lockedSubject(tx: Tx, paymentId: string): Promise<RefundSubject> {
  const { invoiceId, orderId } = found(await paymentById(tx, paymentId));
  const invoice = invoiceId ? await lockedInvoice(tx, invoiceId) : null;
  const order = orderId ? await lockedOrder(tx, orderId) : null;
  return subjectOf(tx, found((await lockedPayments(tx, [paymentId]))[0]), { invoice, order });
}

/** Who paid, as the invoice or the order says. */
export const payerOf = ({ invoice, order }: Pick<RefundSubject, 'invoice' | 'order'>) =>
  found(invoice?.printed ?? order?.printed).payer;

/** How far what it paid for is credited. */
export const creditingOfSubject = ({ printed, steps }: Pick<RefundSubject, 'printed' | 'steps'>) =>
  creditedSoFar(printed, steps);

/** Whether a card payment can still be voided: nothing of it went back, and its day is not closed. A bank debit cannot. */
export async function mayVoid(db: Db, { method, saleId, state, settledAt, refundedMinor }: Payment): Promise<boolean> {
  if (method !== 'card' || !saleId || state !== 'paid' || !settledAt || refundedMinor > 0n) return false;
  const closed = await closedTo(db);
  const { zone } = await businessById(db);
  return closed === null || dateInZone(settledAt, zone) > closed;
}

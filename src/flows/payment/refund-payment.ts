import { randomUUID } from 'node:crypto';
import { money } from '@/core/money/money';
import { isAtProcessor, type PaymentMethod } from '@/core/payment/methods';
import type { Aside } from '@/core/refund/aside';
import { keptStep } from '@/core/refund/printed-document';
import { type RefundWish, refundableLeft, refundParts } from '@/core/refund/refund';
import { enqueueJobs } from '@/db/jobs';
import { heldByPending, paymentById } from '@/db/payments';
import type { Tx } from '@/db/pool';
import {
  insertRefund,
  pendingRefundsOf,
  type Refund,
  refundById,
  refundByRequest,
  refundsOf,
  updateRefund,
} from '@/db/refunds';
import { desk, type Writing, worker } from '@/flows/door/operation';
import { requireProvedToGive } from '@/flows/door/proved';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { orRefused } from '@/flows/invoice/or-refused';
import { putBackSold, takeOffSold } from '@/flows/voucher/spend-voucher';
import { services } from '@/outside/services';
import { recordRefund } from './record-refund';
import { creditingOfSubject, lockedSubject, mayVoid, type RefundSubject } from './refund-subject';

export type { Refund, RefundWish };

const ASK_AFTER_SECONDS = 20;

/** What a person gives back, how, and what else hangs on it. */
export type RefundAsk = {
  readonly wish: RefundWish;
  /** To the card or the bank account that paid, or another way by hand. */
  readonly method: PaymentMethod;
  /** Of the cheque or transfer. */
  readonly reference: string;
  /** The invoice shall be paid again: no credit note is written. */
  readonly owedAgain: boolean;
  readonly reason: string;
  readonly aside: Aside;
  /** Made by the form: the same press is one refund. */
  readonly requestKey: string;
};

/**
 * Gives back part or all of a payment: of an invoice, of a plan's charge, of an order, to its card or by hand. The wish is written down
 * with a job before the processor hears of it, under a key of its own: however often it is asked, it is given back once.
 *
 * @throws Refusal `refund-too-large`, `refund-refused`, `refund-under-way`, `disputed`, `payment-under-way`, `credited-by-lines`,
 *   `lines-not-settled`, `voucher-used`, `voucher-over`, `void-too-late`, `nothing-to-refund`, `not-by-card`, `not-found`, `prove-again`
 */
export const refundPayment = desk('give-back').run(
  async (ctx, paymentId: string, ask: RefundAsk): Promise<Refund['state']> => {
    const refund = await ctx.turn((tx) => writeDown(tx, paymentId, ask));
    const state = refund.state === 'pending' ? await settleRefund(ctx.businessId, refund.id) : refund.state;
    if (state === 'refused') throw new Refusal('refund-refused');
    return state;
  },
);

/** What was given back of a payment, oldest first. @throws Refusal `not-found` */
export const refundsOfPayment = desk('see').read(async (db, paymentId: string): Promise<Refund[]> => {
  found(await paymentById(db, paymentId));
  return refundsOf(db, paymentId);
});

async function writeDown(tx: Writing, paymentId: string, ask: RefundAsk): Promise<Refund> {
  const before = await refundByRequest(tx, ask.requestKey);
  if (before) return before;
  const subject = await lockedSubject(tx, paymentId);
  const { wish, method, owedAgain, reason, requestKey } = ask;
  await requireRefundable(tx, subject, ask);
  const parts = orRefused(() =>
    refundParts(
      subject.paid,
      { crediting: creditingOfSubject(subject), creditMinor: subject.creditMinor, owedAgain },
      wish,
    ),
  );
  await requireProvedToGive(tx, money(parts.totalMinor, subject.payment.currency));
  const id = randomUUID();
  await insertRefund(tx, {
    id,
    paymentId,
    kind: wish.by === 'void' ? 'void' : 'refund',
    method,
    reference: isAtProcessor(method) ? '' : method === 'voucher' ? subject.payment.reference : ask.reference.trim(),
    amountMinor: parts.totalMinor,
    tipMinor: parts.tipMinor,
    step: parts.step && keptStep(parts.step),
    wish: ask.aside,
    reason: reason.trim(),
    requestKey,
    byName: tx.name,
  });
  if (subject.order?.offer.voucher)
    await takeOffSold(tx, subject.order.id, { minor: parts.amountMinor, refundId: id, byName: tx.name });
  if (isAtProcessor(method)) await askLater(tx, id);
  else {
    await updateRefund(tx, id, 'done');
    await recordRefund(tx, subject, found(await refundById(tx, id)));
  }
  return found(await refundById(tx, id));
}

/** What has to hold before anything is given back. */
async function requireRefundable(
  tx: Tx,
  subject: RefundSubject,
  { wish, method, owedAgain }: RefundAsk,
): Promise<void> {
  const { payment, invoice, paid, together } = subject;
  const left = refundableLeft(paid);
  if (payment.state === 'voided' || (payment.state === 'paid' && left.amountMinor + left.tipMinor === 0n))
    throw new Refusal('refund-too-large');
  if (payment.state !== 'paid') throw new Refusal('nothing-to-refund');
  // The holder's bank has the money: given back beside it, it would be gone twice.
  if (payment.dispute === 'open' || payment.dispute === 'lost') throw new Refusal('disputed');
  // To a card, an account at a bank or a voucher only what came from it.
  if (method === 'account' || ((isAtProcessor(method) || method === 'voucher') && method !== payment.method))
    throw new Refusal('not-by-card');
  if (isAtProcessor(method) && !payment.saleId) throw new Refusal('not-by-card');
  const pending = invoice
    ? await pendingRefundsOf(tx, invoice.id)
    : together.filter(({ state }) => state === 'pending');
  if (pending.length > 0) throw new Refusal('refund-under-way');
  if (invoice && (await heldByPending(tx, invoice.id)) > 0n) throw new Refusal('payment-under-way');
  if (wish.by === 'void' && method !== 'card') throw new Refusal('not-by-card');
  if (wish.by === 'void' && paid.refundedMinor > 0n) throw new Refusal('refund-too-large');
  if (wish.by === 'void' && !(await mayVoid(tx, payment))) throw new Refusal('void-too-late');
  // A line that is not paid for cannot be given back; and a line that goes back is not owed again.
  if (wish.by === 'lines' && invoice && (subject.dueMinor > 0n || owedAgain)) throw new Refusal('lines-not-settled');
}

/** Asks the processor to give back what is written down, and writes down what it says; run again, it does nothing twice. */
export const settleRefund = worker().run(async (ctx, refundId: string): Promise<Refund['state']> => {
  const { cards } = services();
  const open = await ctx.read(async (db) => {
    const refund = await refundById(db, refundId);
    const payment = refund && (await paymentById(db, refund.paymentId));
    return { refund: found(refund), payment: found(payment) };
  });
  const { refund, payment } = open;
  if (refund.state !== 'pending') return refund.state;
  const saleId = found(payment.saleId);
  const done =
    refund.kind === 'void'
      ? await cards.void(saleId)
      : await cards.refund(saleId, refund.id, money(refund.amountMinor, payment.currency));
  const later = await ctx.later();
  return later.turn(async (tx) => {
    const subject = await lockedSubject(tx, payment.id);
    const again = found(await refundById(tx, refundId));
    if (again.state !== 'pending') return again.state;
    if (done === null) {
      await askLater(tx, refundId);
      return 'pending';
    }
    await updateRefund(tx, refundId, done ? 'done' : 'refused');
    if (done) await recordRefund(tx, subject, again);
    else await putBackSold(tx, refundId, again.byName);
    return done ? 'done' : 'refused';
  });
});

/** Lets the worker ask about a refund in a while. */
const askLater = (tx: Tx, refundId: string): Promise<void> =>
  enqueueJobs(tx, [
    {
      task: 'settle-refund',
      key: `refund:${refundId}`,
      payload: { businessId: tx.businessId, refundId },
      delaySeconds: ASK_AFTER_SECONDS,
    },
  ]);

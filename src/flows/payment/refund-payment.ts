import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { orderRefunded } from '@/core/ledger/movements';
import { jsonMinor, money } from '@/core/money/money';
import { refundParts } from '@/core/offer/refund';
import { reversals } from '@/core/share/split';
import { businessById } from '@/db/businesses';
import { enqueueJobs } from '@/db/jobs';
import { insertEntry } from '@/db/ledger';
import { addRefundedToOffer } from '@/db/offers';
import { lockedOrder } from '@/db/orders';
import { sharesOf, updateReversed } from '@/db/partners';
import { lockedPayments, type Payment, paymentById, updateRefunded } from '@/db/payments';
import type { Tx } from '@/db/pool';
import { insertRefund, type Refund, refundById, refundByRequest, refundsOf, updateRefund } from '@/db/refunds';
import { addToTimeline } from '@/db/timeline';
import { desk, worker } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { services } from '@/outside/services';

export type { Refund };

const ASK_AFTER_SECONDS = 20;

/** What a person gives back; `void` takes the whole payment back before it is settled. */
export type RefundWish = {
  readonly kind: 'refund' | 'void';
  readonly amountMinor: bigint;
  readonly reason: string;
  /** Made by the form: the same press is one refund. */
  readonly requestKey: string;
};

/**
 * Gives back part or all of an order's card payment. The wish is written down with a job before the processor hears of it, under a
 * key of its own: however often it is asked, it is given back once.
 *
 * @throws Refusal `refund-too-large`, `refund-refused`, `not-found`
 */
export const refundPayment = desk('give-back').run(
  async (ctx, paymentId: string, wish: RefundWish): Promise<Refund['state']> => {
    const refund = await ctx.turn(async (tx) => {
      const before = await refundByRequest(tx, wish.requestKey);
      if (before) return before;
      const payment = found((await lockedPayments(tx, [paymentId]))[0]);
      if (payment.state !== 'paid' || !payment.orderId || !payment.saleId) throw new Refusal('refund-refused');
      const open = (await refundsOf(tx, paymentId)).filter(({ state }) => state === 'pending');
      const left = open.reduce(
        (sum, { amountMinor }) => sum - amountMinor,
        payment.amountMinor + payment.tipMinor - payment.refundedMinor,
      );
      const amountMinor = wish.kind === 'void' ? payment.amountMinor + payment.tipMinor : wish.amountMinor;
      if (amountMinor <= 0n || amountMinor > left) throw new Refusal('refund-too-large');
      const id = randomUUID();
      const { kind, reason, requestKey } = wish;
      await insertRefund(tx, { id, paymentId, kind, amountMinor, reason, requestKey, byName: ctx.name });
      await askLater(tx, id);
      return found(await refundById(tx, id));
    });
    const state = refund.state === 'pending' ? await settleRefund(ctx.businessId, refund.id) : refund.state;
    if (state === 'refused') throw new Refusal('refund-refused');
    return state;
  },
);

/** Asks the processor to give back what is written down, and writes down what it says; run again, it does nothing twice. */
export const settleRefund = worker().run(async (ctx, refundId: string): Promise<Refund['state']> => {
  const { cards } = services();
  const open = await ctx.read(async (db) => {
    const refund = await refundById(db, refundId);
    const payment = refund && (await paymentById(db, refund.paymentId));
    return refund?.state === 'pending' && payment ? { refund, payment } : null;
  });
  if (!open) return 'done';
  const { refund, payment } = open;
  const saleId = found(payment.saleId);
  const done =
    refund.kind === 'void'
      ? await cards.void(saleId)
      : await cards.refund(saleId, refund.id, money(refund.amountMinor, payment.currency));
  const later = await ctx.later();
  return later.turn(async (tx) => {
    const order = found(await lockedOrder(tx, found(payment.orderId)));
    const current = found((await lockedPayments(tx, [payment.id]))[0]);
    const again = found(await refundById(tx, refundId));
    if (again.state !== 'pending') return again.state;
    if (done === null) {
      await askLater(tx, refundId);
      return 'pending';
    }
    await updateRefund(tx, refundId, done ? 'done' : 'refused');
    if (done) await recordRefund(tx, order, current, again);
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

async function recordRefund(
  tx: Tx,
  order: NonNullable<Awaited<ReturnType<typeof lockedOrder>>>,
  payment: Payment,
  refund: Refund,
): Promise<void> {
  const business = await businessById(tx);
  const today = dateInZone(tx.now, business.zone);
  const { printed } = order;
  const sums = { totalMinor: payment.amountMinor, taxMinor: BigInt(printed.taxTotal), tipMinor: payment.tipMinor };
  const back = refundParts(sums, payment.refundedMinor, refund.amountMinor);
  const before = refundParts(sums, 0n, payment.refundedMinor);
  // Partners give back of what was shared: the total, not the tip.
  const shares = await sharesOf(tx, payment.id);
  const steps = reversals(
    payment.amountMinor,
    shares.map(({ shareMinor }) => shareMinor),
    [before.totalMinor, back.totalMinor],
  );
  const reversed = steps[1]?.partners ?? [];
  for (const [at, share] of shares.entries()) await updateReversed(tx, payment.id, share.position, reversed[at] ?? 0n);
  const voided = refund.kind === 'void';
  const feeMinor = voided ? shares.reduce((sum, share) => sum + share.feeMinor, 0n) : 0n;
  await updateRefunded(tx, payment.id, refund.amountMinor, voided);
  await addRefundedToOffer(tx, order.offerId, payment.currency, back.totalMinor);
  await insertEntry(
    tx,
    orderRefunded(
      {
        on: today,
        words: `${voided ? 'Void' : 'Refund'} of order ${order.reference}`,
        currency: payment.currency,
      },
      back,
      { shareMinor: reversed.reduce((sum, minor) => sum + minor, 0n), feeMinor },
      voided ? payment.feeMinor : 0n,
    ),
    { id: randomUUID(), cause: `refund:${refund.id}`, invoiceId: null, orderId: order.id, paymentId: payment.id },
  );
  const event = {
    kind: 'given-back',
    amount: jsonMinor(refund.amountMinor),
    reason: refund.reason,
    voided,
  } as const;
  await addToTimeline(tx, { orderId: order.id }, event, refund.byName);
  await queueMessage(tx, {
    kind: 'refund',
    key: `refund:${refund.id}`,
    toName: printed.payer.name,
    toAddress: printed.payer.email,
    orderId: order.id,
    paymentId: payment.id,
    customerId: order.customerId,
    details: { minor: jsonMinor(refund.amountMinor) },
  });
}

import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { orderRefunded } from '@/core/ledger/movements';
import { money, wireMinor } from '@/core/money/money';
import { refundParts } from '@/core/offer/refund';
import { reversals } from '@/core/share/split';
import { businessById } from '@/db/businesses';
import { announce, enqueueJob } from '@/db/jobs';
import { insertEntry } from '@/db/ledger';
import { addRefundedToOffer } from '@/db/offers';
import { lockedOrder } from '@/db/orders';
import { sharesOf, updateReversed } from '@/db/partners';
import { lockedPayment, type Payment, paymentById, updateRefunded } from '@/db/payments';
import type { Actor } from '@/db/people';
import type { Tx } from '@/db/pool';
import { insertRefund, type Refund, refundById, refundByRequest, refundsOf, updateRefund } from '@/db/refunds';
import { insertHappening } from '@/db/timeline';
import { inBusinessInTurn, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { queueMessage } from './queue-message';
import { Refusal } from './refusal';

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
export async function refundPayment(actor: Actor, paymentId: string, wish: RefundWish): Promise<Refund['state']> {
  requireRight(actor, 'ask');
  const { businessId } = actor;
  const now = await services().clock.now();
  const refund = await inBusinessInTurn(businessId, async (tx) => {
    const before = await refundByRequest(tx, businessId, wish.requestKey);
    if (before) return before;
    const payment = found(await lockedPayment(tx, businessId, paymentId));
    if (payment.state !== 'paid' || !payment.orderId || !payment.saleId) throw new Refusal('refund-refused');
    const open = (await refundsOf(tx, businessId, paymentId)).filter(({ state }) => state === 'pending');
    const left = open.reduce(
      (sum, { amountMinor }) => sum - amountMinor,
      payment.amountMinor + payment.tipMinor - payment.refundedMinor,
    );
    const amountMinor = wish.kind === 'void' ? payment.amountMinor + payment.tipMinor : wish.amountMinor;
    if (amountMinor <= 0n || amountMinor > left) throw new Refusal('refund-too-large');
    const id = randomUUID();
    const { kind, reason, requestKey } = wish;
    await insertRefund(
      tx,
      businessId,
      { id, paymentId, kind, amountMinor, reason, requestKey, byName: actor.name },
      now,
    );
    await enqueueJob(tx, 'settle-refund', `refund:${id}`, { businessId, refundId: id }, ASK_AFTER_SECONDS);
    return found(await refundById(tx, businessId, id));
  });
  const state = refund.state === 'pending' ? await settleRefund(businessId, refund.id) : refund.state;
  if (state === 'refused') throw new Refusal('refund-refused');
  return state;
}

/** Asks the processor to give back what is written down, and writes down what it says; run again, it does nothing twice. */
export async function settleRefund(businessId: string, refundId: string): Promise<Refund['state']> {
  const { cards, clock } = services();
  const open = await readBusiness(businessId, async (db) => {
    const refund = await refundById(db, businessId, refundId);
    const payment = refund && (await paymentById(db, businessId, refund.paymentId));
    return refund?.state === 'pending' && payment ? { refund, payment } : null;
  });
  if (!open) return 'done';
  const { refund, payment } = open;
  const saleId = found(payment.saleId);
  const done =
    refund.kind === 'void'
      ? await cards.void(saleId)
      : await cards.refund(saleId, refund.id, money(refund.amountMinor, payment.currency));
  const now = await clock.now();
  return inBusinessInTurn(businessId, async (tx) => {
    const order = found(await lockedOrder(tx, businessId, found(payment.orderId)));
    const current = found(await lockedPayment(tx, businessId, payment.id));
    const again = found(await refundById(tx, businessId, refundId));
    if (again.state !== 'pending') return again.state;
    if (done === null) {
      await enqueueJob(tx, 'settle-refund', `refund:${refundId}`, { businessId, refundId }, ASK_AFTER_SECONDS);
      return 'pending';
    }
    await updateRefund(tx, businessId, refundId, done ? 'done' : 'refused', now);
    if (done) await recordRefund(tx, businessId, order, current, again, now);
    await announce(tx, businessId);
    return done ? 'done' : 'refused';
  });
}

async function recordRefund(
  tx: Tx,
  businessId: string,
  order: NonNullable<Awaited<ReturnType<typeof lockedOrder>>>,
  payment: Payment,
  refund: Refund,
  now: Date,
): Promise<void> {
  const business = await businessById(tx, businessId);
  const today = dateInZone(now, business.zone);
  const { printed } = order;
  const sums = { totalMinor: payment.amountMinor, taxMinor: BigInt(printed.taxTotal), tipMinor: payment.tipMinor };
  const back = refundParts(sums, payment.refundedMinor, refund.amountMinor);
  const before = refundParts(sums, 0n, payment.refundedMinor);
  // Partners give back of what was shared: the total, not the tip.
  const shares = await sharesOf(tx, businessId, payment.id);
  const steps = reversals(
    payment.amountMinor,
    shares.map(({ shareMinor }) => shareMinor),
    [before.totalMinor, back.totalMinor],
  );
  const reversed = steps[1]?.partners ?? [];
  for (const [at, share] of shares.entries())
    await updateReversed(tx, businessId, payment.id, share.position, reversed[at] ?? 0n);
  const voided = refund.kind === 'void';
  const feeMinor = voided ? shares.reduce((sum, share) => sum + share.feeMinor, 0n) : 0n;
  await updateRefunded(tx, businessId, payment.id, refund.amountMinor, voided);
  await addRefundedToOffer(tx, businessId, order.offerId, payment.currency, back.totalMinor);
  await insertEntry(
    tx,
    businessId,
    orderRefunded(
      today,
      `${voided ? 'Void' : 'Refund'} of order ${order.reference}`,
      payment.currency,
      back,
      { shareMinor: reversed.reduce((sum, minor) => sum + minor, 0n), feeMinor },
      voided ? payment.feeMinor : 0n,
    ),
    { id: randomUUID(), cause: `refund:${refund.id}`, invoiceId: null, orderId: order.id, paymentId: payment.id },
    now,
  );
  const happening = {
    kind: 'given-back',
    amount: wireMinor(refund.amountMinor),
    reason: refund.reason,
    voided,
  } as const;
  await insertHappening(tx, businessId, { orderId: order.id }, happening, refund.byName, now);
  await queueMessage(
    tx,
    businessId,
    {
      kind: 'refund',
      key: `refund:${refund.id}`,
      toName: printed.payer.name,
      toAddress: printed.payer.email,
      orderId: order.id,
      paymentId: payment.id,
      customerId: order.customerId,
      details: { minor: wireMinor(refund.amountMinor) },
    },
    now,
  );
}

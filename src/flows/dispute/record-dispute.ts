import { randomUUID } from 'node:crypto';
import { longDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { disputeTakes, mayAnswer, partnersOfDispute, type ToldDispute } from '@/core/dispute/dispute';
import { disputeLost, disputeOpened, disputeWon } from '@/core/ledger/movements';
import { jsonMinor, leastOf, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { BatchDispute } from '@/core/payment/day-batch';
import { disputeRuleOf } from '@/core/payout/policy';
import { type Refundable, refundableLeft } from '@/core/refund/refund';
import { businessById } from '@/db/businesses';
import { type Dispute, disputeOfPayment, insertDispute, updateDecided } from '@/db/disputes';
import { insertEntry } from '@/db/ledger';
import { addRefundedToOffer } from '@/db/offers';
import { ordersBehindInvoices } from '@/db/orders';
import { insertPartnerMovements, payoutSettings } from '@/db/payouts';
import { ownersOf } from '@/db/people';
import type { Refund } from '@/db/refunds';
import { addToTimeline } from '@/db/timeline';
import type { Writing } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { queueMessages } from '@/flows/message/queue-message';
import { lockedSubject, payerOf, type RefundSubject } from '@/flows/payment/refund-subject';

/** What the ledger calls what a dispute moved, once and for all; by the processor's key. */
export const disputeCause = (kind: BatchDispute['kind'] | 'dispute-lost', key: string): string => `${kind}:${key}`;

/**
 * Writes down what the processor tells of a dispute: that it took the money, and what the bank decided, each once. Called within a
 * transaction in turn; what is known already changes nothing.
 */
export async function recordDispute(tx: Writing, told: ToldDispute): Promise<void> {
  const subject = await lockedSubject(tx, told.paymentId);
  // A payment whose outcome nobody has written down yet is looked at again with the next news.
  if (subject.payment.state !== 'paid') return;
  const before = await disputeOfPayment(tx, told.paymentId);
  const dispute = before ?? (await recordOpened(tx, subject, told));
  if (told.decided && dispute.settledAt === null) await recordDecided(tx, subject, dispute, told.decided);
}

/**
 * What of a payment's amount went back before it was disputed. A refund that is still being asked about counts where what the bank took
 * leaves it out: the processor did the one before the other.
 */
function givenBackBefore(paid: Refundable, refunds: readonly Refund[], takenMinor: bigint): bigint {
  const pending = refunds.filter(({ state }) => state === 'pending');
  const pendingMinor = pending.reduce((sum, { amountMinor }) => sum + amountMinor, 0n);
  const back = paid.refundedMinor - paid.tipRefundedMinor;
  const isPendingDone = paid.amountMinor + paid.tipMinor - takenMinor >= paid.refundedMinor + pendingMinor;
  return isPendingDone ? back + pending.reduce((sum, one) => sum + one.amountMinor - one.tipMinor, 0n) : back;
}

/** The words of an entry: `Dispute of invoice 1042`. */
const called = ({ invoice, order }: RefundSubject): string =>
  `Dispute of ${invoice ? `invoice ${invoice.number}` : `order ${found(order).reference}`}`;

async function recordOpened(tx: Writing, subject: RefundSubject, told: ToldDispute): Promise<Dispute> {
  const { payment, invoice, order, shares, paid, refunds } = subject;
  const business = await businessById(tx);
  const { policy } = await payoutSettings(tx);
  const backMinor = givenBackBefore(paid, refunds, told.amountMinor);
  const takes = disputeTakes({ ...paid, backMinor }, told, disputeRuleOf(policy));
  const partners = shares.flatMap(({ partnerId }, at) => {
    const minor = takes.partners[at] ?? 0n;
    return minor === 0n ? [] : [{ partnerId, minor: jsonMinor(minor) }];
  });
  await insertDispute(tx, { ...told, id: randomUUID(), partners });
  await movePartners(tx, payment, partners, 'disputed');
  await insertEntry(
    tx,
    disputeOpened(bookingOf(tx.now, business.zone, called(subject), payment.currency), {
      ...takes,
      partners: partnersOfDispute(takes),
    }),
    {
      id: randomUUID(),
      cause: disputeCause('disputed', told.key),
      invoiceId: invoice?.id ?? null,
      orderId: order?.id ?? null,
      paymentId: payment.id,
    },
  );
  const event = { kind: 'disputed', amount: jsonMinor(told.amountMinor), reason: told.reason } as const;
  await addToTimeline(tx, invoice ? invoice.id : { orderId: found(order).id }, event, 'Dahlia');
  const dispute = found(await disputeOfPayment(tx, payment.id));
  if (mayAnswer(dispute, tx.now) && !told.decided)
    await tellOwners(
      tx,
      dispute,
      'opened',
      `${sumOf(dispute, business.paperLocale)} by ${nameOf(subject)} is disputed: answer by ${longDate(dateInZone(dispute.answerBy, business.zone), business.paperLocale)}`,
    );
  return dispute;
}

async function recordDecided(
  tx: Writing,
  subject: RefundSubject,
  dispute: Dispute,
  { lostBy, feeBackMinor }: NonNullable<ToldDispute['decided']>,
): Promise<void> {
  const { payment, invoice, order } = subject;
  if ((await updateDecided(tx, dispute, { lostBy, feeBackMinor })) === 0) return;
  const business = await businessById(tx);
  const { amountMinor, partners } = dispute;
  const words = `${called(subject)} ${lostBy ? 'lost' : 'won'}`;
  const booking = bookingOf(tx.now, business.zone, words, payment.currency);
  const shareMinor = partners.reduce((sum, { minor }) => sum + BigInt(minor), 0n);
  const won = { amountMinor, feeMinor: dispute.feeMinor, partners: { shareMinor, feeMinor: 0n } };
  await insertEntry(tx, lostBy ? disputeLost(booking, amountMinor) : disputeWon(booking, won, feeBackMinor), {
    id: randomUUID(),
    cause: disputeCause(lostBy ? 'dispute-lost' : 'dispute-won', dispute.key),
    invoiceId: invoice?.id ?? null,
    orderId: order?.id ?? null,
    paymentId: payment.id,
  });
  if (!lostBy)
    await movePartners(
      tx,
      payment,
      partners.map(({ partnerId, minor }) => ({ partnerId, minor: -minor })),
      'dispute-won',
    );
  else await takeFromOffer(tx, subject, amountMinor);
  const event = { kind: lostBy ? 'dispute-lost' : 'dispute-won', amount: jsonMinor(amountMinor) } as const;
  await addToTimeline(tx, invoice ? invoice.id : { orderId: found(order).id }, event, 'Dahlia');
  await tellOwners(
    tx,
    dispute,
    lostBy ? 'lost' : 'won',
    `The dispute about ${sumOf(dispute, business.paperLocale)} by ${nameOf(subject)} is ${lostBy ? 'lost' : 'won'}`,
  );
}

const bookingOf = (at: Date, zone: string, words: string, currency: string) => ({
  on: dateInZone(at, zone),
  words,
  currency,
});

const sumOf = ({ amountMinor, currency }: Pick<Dispute, 'amountMinor' | 'currency'>, locale: string): string =>
  moneyText(money(amountMinor, currency), locale);

const nameOf = (subject: RefundSubject): string => payerOf(subject).name || 'a payer';

/** Partners give back what they got of it, or get it again where the sums are below 0. */
const movePartners = async (
  tx: Writing,
  { id: paymentId, currency }: RefundSubject['payment'],
  parts: Dispute['partners'],
  kind: BatchDispute['kind'],
): Promise<void> => {
  if (parts.length === 0) return;
  await insertPartnerMovements(
    tx,
    parts.map(({ partnerId, minor }) => ({ partnerId, paymentId, kind, currency, minor: BigInt(-minor) })),
  );
};

/** What an offer brought in counts without what was lost of it. */
async function takeFromOffer(
  tx: Writing,
  { payment, invoice, order, paid }: RefundSubject,
  lostMinor: bigint,
): Promise<void> {
  const behind = order ?? (invoice ? (await ordersBehindInvoices(tx, [invoice.id])).get(invoice.id) : null);
  const ofAmount = leastOf(lostMinor, refundableLeft(paid).amountMinor);
  if (behind) await addRefundedToOffer(tx, behind.offerId, payment.currency, ofAmount);
}

/** Writes to every owner, once for each thing that becomes known of a dispute. */
export async function tellOwners(
  tx: Writing,
  { id }: Pick<Dispute, 'id'>,
  what: 'opened' | 'reminder' | 'won' | 'lost',
  subject: string,
): Promise<void> {
  await queueMessages(
    tx,
    (await ownersOf(tx)).map((owner) => ({
      kind: 'dispute' as const,
      key: `dispute-${what}:${id}:${owner.id}`,
      toName: owner.name,
      toAddress: owner.email,
      details: { subject, from: id, text: what },
    })),
  );
}

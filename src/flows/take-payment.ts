import { randomUUID } from 'node:crypto';
import { money, wireMinor } from '@/core/money/money';
import { REFUSAL_WORDS, type RefusalReason } from '@/core/payment/outcome';
import { isAllowed, payable } from '@/core/payment/part-payment';
import { businessById } from '@/db/businesses';
import { linkHolder, lockedInvoice } from '@/db/invoices';
import { announce, enqueueJob } from '@/db/jobs';
import { countAttempt } from '@/db/limits';
import {
  heldByPending,
  insertPayment,
  type Payment,
  paymentByAttempt,
  paymentById,
  pendingPayment,
} from '@/db/payments';
import type { Tx } from '@/db/pool';
import { receiptOfPayment } from '@/db/receipts';
import { insertHappening } from '@/db/timeline';
import { inBusiness, inBusinessInTurn, outsideBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found } from './access';
import { perHour } from './attempt-limits';
import { isFreshWork, noteRefusal, requireFewRefusals, type Work, whenThere } from './card-testing';
import { requireConsent } from './consent';
import { paidSubject, recordOutcome } from './record-outcome';
import { Refusal } from './refusal';

/** How a payment stands, for the payer. */
export type PaymentStanding =
  | { readonly state: 'paid'; readonly receipt: string }
  | { readonly state: 'refused'; readonly words: string; readonly reason: RefusalReason }
  | { readonly state: 'approval'; readonly url: string }
  | { readonly state: 'checking' };

/** After this many seconds the worker asks about a payment that nobody has heard of since. */
export const ASK_AFTER_SECONDS = 20;

/** The key under which the processor knows a payment: it names the business too, so that an event finds its way back. */
export const saleKey = (businessId: string, paymentId: string): string => `${businessId}.${paymentId}`;

/** The business and payment in a key; null where it is none of ours. */
export function ofSaleKey(key: string): { businessId: string; paymentId: string } | null {
  const match = /^([0-9a-f-]{36})\.([0-9a-f-]{36})$/.exec(key);
  return match?.[1] && match[2] ? { businessId: match[1], paymentId: match[2] } : null;
}

/** Tells the payer how a payment stands. */
export async function standingOf(businessId: string, payment: Payment): Promise<PaymentStanding> {
  if (payment.state === 'paid') {
    const receipt = await readBusiness(businessId, (db) => receiptOfPayment(db, businessId, payment.id));
    return { state: 'paid', receipt: found(receipt).number };
  }
  if (payment.state === 'refused') {
    const reason = payment.reason ?? 'refused';
    return { state: 'refused', words: REFUSAL_WORDS[reason], reason };
  }
  return payment.approvalUrl ? { state: 'approval', url: payment.approvalUrl } : { state: 'checking' };
}

/**
 * Takes a card payment through the customer's link: the whole amount due, or a part where the business allows that, and a tip.
 *
 * The attempt is written down, with a job that will ask about it, before the processor hears of it: killed at any point,
 * it is found again. An attempt key that came before, or another attempt still open, is answered and not repeated.
 *
 * @param attempt `attemptKey` is made by the page for one press of the button; `amountMinor` is what the payer saw
 * @param address the network address, for the limit only
 * @throws Refusal `already-paid`, `amount-changed`, `too-many-attempts`, `invoice-not-payable`, `not-found`
 */
export async function takePayment(link: string, attempt: PayAttempt, address: string): Promise<PaymentStanding> {
  const { businessId, invoiceId } = found(await outsideBusiness((db) => linkHolder(db, link)));
  const before = await readBusiness(businessId, (db) =>
    paymentByAttempt(db, businessId, invoiceId, attempt.attemptKey),
  );
  if (before) return standingOf(businessId, before);
  const waits = await Promise.all([
    countAttempt(perHour('card-address', 40), address),
    countAttempt(perHour('card-invoice', 12), invoiceId),
  ]);
  if (waits.some((seconds) => seconds > 0)) throw new Refusal('too-many-attempts');

  const { cards, clock, publicUrl } = services();
  const now = await clock.now();
  const claim = await inBusinessInTurn(businessId, (tx) => claimPayment(tx, businessId, invoiceId, attempt, now));
  if (!claim.mine) return standingOf(businessId, claim.payment);
  const { payment } = claim;
  const outcome = await cards.sale({
    key: saleKey(businessId, payment.id),
    amount: money(payment.amountMinor + payment.tipMinor, payment.currency),
    token: attempt.cardToken,
    reference: claim.reference,
    returnUrl: `${publicUrl}/i/${link}/back`,
  });
  const later = await clock.now();
  if (outcome.kind === 'unknown') await noteChecking(businessId, payment, later);
  return standingOf(businessId, await recordOutcome(businessId, payment, outcome, later));
}

/**
 * The same for whoever comes with the link alone: the work of the payer's computer comes first, and an address or a card
 * that was refused too often goes no further.
 *
 * @throws Refusal `not-a-robot`, `too-many-attempts`, and all of `takePayment`
 */
export async function payByLink(
  link: string,
  attempt: PayAttempt & { readonly work: Work },
  address: string,
): Promise<PaymentStanding> {
  const { businessId, invoiceId } = found(await outsideBusiness((db) => linkHolder(db, link)));
  const before = await readBusiness(businessId, (db) =>
    paymentByAttempt(db, businessId, invoiceId, attempt.attemptKey),
  );
  if (before) return standingOf(businessId, before);
  await requireFewRefusals(businessId, address, attempt.cardToken);
  // Work that was handed in before is of use to the twin of its own press only, and that is answered under its key.
  if (!(await isFreshWork(invoiceId, attempt.work))) return twinOf(businessId, invoiceId, attempt.attemptKey);
  const standing = await takePayment(link, attempt, address);
  if (standing.state === 'refused') await noteRefusal(businessId, { invoiceId }, address, attempt.cardToken);
  return standing;
}

/** The same press, sent twice at once: its twin is under way, and both get one answer. */
async function twinOf(businessId: string, invoiceId: string, attemptKey: string): Promise<PaymentStanding> {
  const twin = await whenThere(() =>
    readBusiness(businessId, (db) => paymentByAttempt(db, businessId, invoiceId, attemptKey)),
  );
  return standingOf(businessId, twin);
}

/** One press of the payer's button; amounts in minor units, the tip on top. */
export type PayAttempt = {
  readonly attemptKey: string;
  readonly cardToken: string;
  readonly amountMinor: bigint;
  readonly tipMinor?: bigint;
  readonly acceptsTerms?: boolean;
};

/** A tip of more than this many times the payment is a slip of the finger. */
const MOST_TIPS = 2n;

type Claim = { mine: true; payment: Payment; reference: string } | { mine: false; payment: Payment };

async function claimPayment(
  tx: Tx,
  businessId: string,
  invoiceId: string,
  attempt: PayAttempt,
  now: Date,
): Promise<Claim> {
  const { attemptKey, amountMinor, tipMinor = 0n } = attempt;
  const invoice = found(await lockedInvoice(tx, businessId, invoiceId));
  if (invoice.stage !== 'sent' || !invoice.customerId || !invoice.printed) throw new Refusal('invoice-not-payable');
  const { ways } = invoice.printed;
  const mine = await paymentByAttempt(tx, businessId, invoiceId, attemptKey);
  if (mine) return { mine: false, payment: mine };
  const held = await heldByPending(tx, businessId, invoiceId);
  // The whole is paid by one; parts by several people may be under way together, each within what the others leave.
  const open = ways.parts ? null : await pendingPayment(tx, businessId, invoiceId);
  if (open) return { mine: false, payment: open };
  if (!ways.card) throw new Refusal('invoice-not-payable');
  await requireConsent(tx, businessId, invoice, attempt.acceptsTerms === true, now);
  const business = await businessById(tx, businessId);
  const terms = payable({
    total: invoice.totalMinor,
    // What others are just paying is spoken for.
    paid: invoice.paidMinor + held,
    refunded: invoice.refundedMinor,
    credited: invoice.creditedMinor,
    parts: ways.parts,
    ...(ways.parts && ways.firstMinor > 0 ? { firstPayment: { amount: BigInt(ways.firstMinor) } } : {}),
    smallest: business.smallestPaymentMinor,
  });
  if (terms.due === 0n && held > 0n) throw new Refusal('payment-under-way');
  if (terms.due === 0n) throw new Refusal('already-paid');
  if (tipMinor < 0n || (tipMinor > 0n && !ways.tip) || tipMinor > MOST_TIPS * amountMinor)
    throw new Refusal('amount-changed');
  if (!isAllowed(amountMinor, terms)) throw new Refusal('amount-changed');
  const id = randomUUID();
  const { customerId, currency } = invoice;
  await insertPayment(
    tx,
    businessId,
    {
      id,
      invoiceId,
      orderId: null,
      customerId,
      channel: 'invoice',
      currency,
      amountMinor,
      tipMinor,
      exclusive: !ways.parts,
      attemptKey,
    },
    now,
  );
  await enqueueJob(tx, 'settle-payment', `settle:${id}`, { businessId, paymentId: id }, ASK_AFTER_SECONDS);
  await announce(tx, businessId);
  const reference = `${business.name}, invoice ${invoice.printed.number}`;
  return { mine: true, payment: found(await paymentById(tx, businessId, id)), reference };
}

/** Nobody knows what became of an attempt: told on the timeline, and asked about soon. */
export async function noteChecking(businessId: string, payment: Payment, now: Date): Promise<void> {
  await inBusiness(businessId, async (tx) => {
    const happening = { kind: 'checking', amount: wireMinor(payment.amountMinor) } as const;
    await insertHappening(tx, businessId, paidSubject(payment), happening, 'Dahlia', now);
    // Nobody knows: ask soon, and not only after the time that an answered attempt gets.
    await enqueueJob(tx, 'settle-payment', `settle-soon:${payment.id}`, { businessId, paymentId: payment.id }, 2);
    await announce(tx, businessId);
  });
}

import { randomUUID } from 'node:crypto';
import { smallestPayment } from '@/core/business/business';
import { cardsOpen } from '@/core/business/opening';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { takenBy } from '@/core/invoice/printed';
import { money } from '@/core/money/money';
import { cardText, REFUSAL_WORDS, type RefusalReason } from '@/core/payment/outcome';
import { evened, isAllowed, payable } from '@/core/payment/part-payment';
import { businessById } from '@/db/businesses';
import { lockedInvoice } from '@/db/invoices';
import { countAttempt } from '@/db/limits';
import {
  heldByPending,
  insertPayments,
  type Payment,
  paymentByAttempt,
  paymentById,
  pendingPayment,
} from '@/db/payments';
import type { Tx } from '@/db/pool';
import { receiptOfPayment } from '@/db/receipts';
import { INVOICE_LINK } from '@/flows/door/links';
import { byLink, type Context } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { isFreshWork, type Work } from '@/flows/door/work';
import { requireConsent } from '@/flows/invoice/consent';
import { askAboutLater } from '@/flows/payment/ask-later';
import type { Takes } from '@/outside/cards';
import { services } from '@/outside/services';
import { perHour } from './attempt-limits';
import { noteRefusal, requireFewRefusals, whenThere } from './card-testing';
import { requireFreshAttempt } from './fresh-attempt';
import { afterSale } from './record-outcome';

/** How a payment stands, for the payer. */
export type PaymentStatus =
  | { readonly state: 'paid'; readonly receipt: string }
  | { readonly state: 'refused'; readonly words: string; readonly reason: RefusalReason }
  | { readonly state: 'approval'; readonly url: string }
  /** A bank debit: known on that day, of that account. */
  | { readonly state: 'collecting'; readonly on: CalendarDate; readonly account: string }
  | { readonly state: 'checking' };

/** The key under which the processor knows a payment: it names the business too, so that an event finds its way back. */
export const saleKey = (businessId: string, paymentId: string): string => `${businessId}.${paymentId}`;

/** The business and payment in a key; null where it is none of ours. */
export function ofSaleKey(key: string): { businessId: string; paymentId: string } | null {
  const match = /^([0-9a-f-]{36})\.([0-9a-f-]{36})$/.exec(key);
  return match?.[1] && match[2] ? { businessId: match[1], paymentId: match[2] } : null;
}

/** Tells the payer how a payment stands. */
export async function statusOf(ctx: Context, payment: Payment): Promise<PaymentStatus> {
  if (payment.state === 'paid') {
    const receipt = await ctx.read((db) => receiptOfPayment(db, payment.id));
    return { state: 'paid', receipt: found(receipt).number };
  }
  if (payment.state === 'refused') {
    const reason = payment.reason ?? 'refused';
    return { state: 'refused', words: REFUSAL_WORDS[reason], reason };
  }
  if (payment.expectedAt) {
    const { zone } = await ctx.read(businessById);
    const account = cardText({ scheme: payment.cardScheme ?? '', last4: payment.cardLast4 ?? '' });
    return { state: 'collecting', on: dateInZone(payment.expectedAt, zone), account };
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
export const takePayment = byLink(INVOICE_LINK).run(payInvoice);

async function payInvoice(
  ctx: Context,
  invoiceId: string,
  attempt: PayAttempt,
  address: string,
): Promise<PaymentStatus> {
  const before = await ctx.read((db) => paymentByAttempt(db, invoiceId, attempt.attemptKey));
  if (before) return statusOf(ctx, before);
  const waits = await Promise.all([
    countAttempt(perHour('card-address', 40), address),
    countAttempt(perHour('card-invoice', 12), invoiceId),
  ]);
  if (waits.some((seconds) => seconds > 0)) throw new Refusal('too-many-attempts');
  const claim = await ctx.turn((tx) => claimPayment(tx, invoiceId, attempt));
  if (!claim.mine) return statusOf(ctx, claim.payment);
  const { payment } = claim;
  const { cards, publicUrl } = services();
  const outcome = await cards.sale({
    key: saleKey(ctx.businessId, payment.id),
    amount: money(payment.amountMinor + payment.tipMinor, payment.currency),
    token: attempt.cardToken,
    take: claim.take,
    reference: claim.reference,
    returnUrl: `${publicUrl}/i/${claim.link}/back`,
  });
  return statusOf(ctx, await afterSale(ctx, payment, outcome));
}

/**
 * The same for whoever comes with the link alone: the work of the payer's computer comes first, and an address or a card
 * that was refused too often goes no further.
 *
 * @throws Refusal `not-a-robot`, `too-many-attempts`, and all of `takePayment`
 */
export const payByLink = byLink(INVOICE_LINK).run(
  async (
    ctx,
    invoiceId: string,
    attempt: PayAttempt & { readonly work: Work },
    address: string,
  ): Promise<PaymentStatus> => {
    const before = await ctx.read((db) => paymentByAttempt(db, invoiceId, attempt.attemptKey));
    if (before) return statusOf(ctx, before);
    await requireFewRefusals(ctx, address, attempt.cardToken);
    // Work that was handed in before is of use to the twin of its own press only, and that is answered under its key.
    if (!(await isFreshWork(invoiceId, attempt.work))) return twinOf(ctx, invoiceId, attempt.attemptKey);
    const status = await payInvoice(ctx, invoiceId, attempt, address);
    if (status.state === 'refused') await noteRefusal(ctx, { invoiceId }, address, attempt.cardToken);
    return status;
  },
);

/** The same press, sent twice at once: its twin is under way, and both get one answer. */
async function twinOf(ctx: Context, invoiceId: string, attemptKey: string): Promise<PaymentStatus> {
  const twin = await whenThere(() => ctx.read((db) => paymentByAttempt(db, invoiceId, attemptKey)));
  return statusOf(ctx, twin);
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

type Claim =
  | { mine: true; payment: Payment; reference: string; link: string; take: Takes }
  | { mine: false; payment: Payment };

async function claimPayment(tx: Tx, invoiceId: string, attempt: PayAttempt): Promise<Claim> {
  const { attemptKey, amountMinor, tipMinor = 0n } = attempt;
  const invoice = found(await lockedInvoice(tx, invoiceId));
  if (invoice.stage !== 'sent' || !invoice.customerId || !invoice.printed) throw new Refusal('invoice-not-payable');
  const { ways } = invoice.printed;
  const mine = await paymentByAttempt(tx, invoiceId, attemptKey);
  if (mine) return { mine: false, payment: mine };
  const held = await heldByPending(tx, invoiceId);
  // The whole is paid by one; parts by several people may be under way together, each within what the others leave.
  const open = ways.parts ? null : await pendingPayment(tx, invoiceId);
  if (open) return { mine: false, payment: open };
  const business = await businessById(tx);
  const take = takenBy(ways, cardsOpen(business));
  if (!take) throw new Refusal('invoice-not-payable');
  await requireConsent(tx, invoice, attempt.acceptsTerms === true);
  const sums = evened({ total: invoice.totalMinor, paid: invoice.paidMinor, refunded: invoice.refundedMinor });
  const terms = payable({
    ...sums,
    // What others are just paying is spoken for.
    paid: sums.paid + held,
    credited: invoice.creditedMinor,
    parts: ways.parts,
    ...(ways.parts && ways.firstMinor > 0 ? { firstPayment: { amount: BigInt(ways.firstMinor) } } : {}),
    smallest: smallestPayment(business, invoice.currency),
  });
  if (terms.due === 0n && held > 0n) throw new Refusal('payment-under-way');
  if (terms.due === 0n) throw new Refusal('already-paid');
  if (tipMinor < 0n || (tipMinor > 0n && !ways.tip) || tipMinor > MOST_TIPS * amountMinor)
    throw new Refusal('amount-changed');
  if (!isAllowed(amountMinor, terms)) throw new Refusal('amount-changed');
  await requireFreshAttempt(tx, attemptKey);
  const id = randomUUID();
  const { customerId, currency } = invoice;
  await insertPayments(tx, [
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
  ]);
  await askAboutLater(tx, [id]);
  const reference = `${invoice.printed.seller.name}, invoice ${invoice.printed.number}`;
  return { mine: true, payment: found(await paymentById(tx, id)), reference, link: invoice.linkToken, take };
}

import { openAttempts, openPayments, type Payment, paymentByAttempt, paymentById, pendingPayment } from '@/db/payments';
import { INVOICE_LINK } from '@/flows/door/links';
import { byLink, type Context, type House, worker } from '@/flows/door/operation';
import { atMost } from '@/outside/at-most';
import { services } from '@/outside/services';
import { askAboutLater } from './ask-later';
import { recordOutcome, recordOutcomes } from './record-outcome';
import { ofSaleKey, type PaymentStatus, saleKey, statusOf } from './take-payment';

const APPROVAL_AGAIN_SECONDS = 60;
const UNKNOWN_AGAIN_SECONDS = 10;
const ASKED_AT_ONCE = 16;

/** Asks the processor about an open payment and writes down what it says. */
export async function askAbout(ctx: Context, payment: Payment): Promise<Payment> {
  const { cards } = services();
  const answer = await cards.ask(saleKey(ctx.businessId, payment.id));
  if (answer.kind === 'never-seen' || answer.kind === 'unknown') return payment;
  return recordOutcome(await ctx.later(), payment, answer);
}

/**
 * The worker's part: finds out about payments that have been open for a while.
 *
 * By now each request has been answered or is lost. A key that the processor never saw is closed there, so that not even
 * a request that is still on its way can charge; only then is the payment called refused. What stays open is asked about
 * again later.
 */
export const settlePayments = worker().run(async (ctx, paymentIds: readonly string[]): Promise<void> => {
  const open = await ctx.read((db) => openPayments(db, paymentIds));
  const { cards } = services();
  const outcomes = await atMost(ASKED_AT_ONCE, open, async (payment) => {
    const key = saleKey(ctx.businessId, payment.id);
    const answer = await cards.ask(key);
    return { payment, outcome: answer.kind === 'never-seen' ? await cards.close(key) : answer };
  });
  const later = await ctx.later();
  const said = outcomes.filter(({ outcome }) => outcome.kind !== 'unknown');
  if (said.length > 0) await recordOutcomes(later, said);
  const waiting = (kind: 'approval' | 'unknown') =>
    outcomes.filter(({ outcome }) => outcome.kind === kind).map(({ payment }) => payment.id);
  await later.write(async (tx) => {
    await askAboutLater(tx, waiting('approval'), { seconds: APPROVAL_AGAIN_SECONDS });
    await askAboutLater(tx, waiting('unknown'), { seconds: UNKNOWN_AGAIN_SECONDS });
  });
});

/** The processor says that something changed under this key; what changed is asked for, never taken from the event. */
export async function hearOfSale(house: House, key: string): Promise<void> {
  const ours = ofSaleKey(key);
  if (!ours) return;
  const ctx = house.within(ours.businessId);
  const payment = await ctx.read((db) => paymentById(db, ours.paymentId));
  if (payment?.state === 'pending') await askAbout(ctx, payment);
}

/** The payer's page asks how its payment stands; an open one is asked about at the processor. */
export const paymentStatus = byLink(INVOICE_LINK).run(
  async (ctx, invoiceId: string, attemptKey: string): Promise<PaymentStatus | { state: 'none' }> => {
    const payment = await ctx.read(
      async (db) => (await paymentByAttempt(db, invoiceId, attemptKey)) ?? (await pendingPayment(db, invoiceId)),
    );
    if (!payment) return { state: 'none' };
    return statusOf(ctx, payment.state === 'pending' ? await askAbout(ctx, payment) : payment);
  },
);

/** The payer comes back from the bank: finds out what the bank said before the page is shown, of every part that is under way. */
export const returnFromBank = byLink(INVOICE_LINK).run(async (ctx, invoiceId: string): Promise<void> => {
  const open = await ctx.read((db) => openAttempts(db, invoiceId));
  await atMost(ASKED_AT_ONCE, open, (payment) => askAbout(ctx, payment).then(() => undefined));
});

/**
 * The payer does not want to wait for the bank's approval: the attempt is closed at the processor, then another can begin.
 *
 * @param attemptKey the attempt of the payer's own page, where parts by several people may be under way; else the one that is open
 */
export const withdrawAttempt = byLink(INVOICE_LINK).run(
  async (ctx, invoiceId: string, attemptKey: string | null = null): Promise<PaymentStatus | { state: 'none' }> => {
    const payment = await ctx.read(
      async (db) =>
        (attemptKey ? await paymentByAttempt(db, invoiceId, attemptKey) : null) ??
        (await pendingPayment(db, invoiceId)),
    );
    if (payment?.state !== 'pending' || !payment.approvalUrl)
      return payment ? statusOf(ctx, payment) : { state: 'none' };
    const { cards } = services();
    const outcome = await cards.close(saleKey(ctx.businessId, payment.id));
    return statusOf(ctx, await recordOutcome(await ctx.later(), payment, outcome));
  },
);

import { linkHolder } from '@/db/invoices';
import { enqueueJob } from '@/db/jobs';
import { type Payment, paymentByAttempt, paymentById, pendingPayment } from '@/db/payments';
import { inBusiness, outsideBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found } from './access';
import { recordOutcome } from './record-outcome';
import { ofSaleKey, type PaymentStanding, saleKey, standingOf } from './take-payment';

const APPROVAL_AGAIN_SECONDS = 60;
const UNKNOWN_AGAIN_SECONDS = 10;

/** Asks the processor about an open payment and writes down what it says. */
export async function askAbout(businessId: string, payment: Payment): Promise<Payment> {
  const { cards, clock } = services();
  const answer = await cards.ask(saleKey(businessId, payment.id));
  if (answer.kind === 'never-seen' || answer.kind === 'unknown') return payment;
  return recordOutcome(businessId, payment, answer, await clock.now());
}

/**
 * The worker's part: finds out about a payment that has been open for a while.
 *
 * By now the request has been answered or is lost. A key that the processor never saw is closed there, so that not even
 * a request that is still on its way can charge; only then is the payment called refused. What stays open is asked about
 * again later.
 */
export async function settlePayment(businessId: string, paymentId: string): Promise<void> {
  const payment = await readBusiness(businessId, (db) => paymentById(db, businessId, paymentId));
  if (payment?.state !== 'pending') return;
  const { cards, clock } = services();
  const key = saleKey(businessId, paymentId);
  const answer = await cards.ask(key);
  const outcome = answer.kind === 'never-seen' ? await cards.close(key) : answer;
  if (outcome.kind === 'accepted' || outcome.kind === 'refused') {
    await recordOutcome(businessId, payment, outcome, await clock.now());
    return;
  }
  if (outcome.kind === 'approval') await recordOutcome(businessId, payment, outcome, await clock.now());
  const wait = outcome.kind === 'approval' ? APPROVAL_AGAIN_SECONDS : UNKNOWN_AGAIN_SECONDS;
  await inBusiness(businessId, (tx) =>
    enqueueJob(tx, 'settle-payment', `settle:${paymentId}`, { businessId, paymentId }, wait),
  );
}

/** The processor says that something changed under this key; what changed is asked for, never taken from the event. */
export async function hearOfSale(key: string): Promise<void> {
  const ours = ofSaleKey(key);
  if (!ours) return;
  const { businessId, paymentId } = ours;
  const payment = await readBusiness(businessId, (db) => paymentById(db, businessId, paymentId));
  if (payment?.state === 'pending') await askAbout(businessId, payment);
}

/** The payer's page asks how its payment stands; an open one is asked about at the processor. */
export async function paymentStanding(link: string, attemptKey: string): Promise<PaymentStanding | { state: 'none' }> {
  const { businessId, invoiceId } = found(await outsideBusiness((db) => linkHolder(db, link)));
  const payment = await readBusiness(
    businessId,
    async (db) =>
      (await paymentByAttempt(db, businessId, invoiceId, attemptKey)) ??
      (await pendingPayment(db, businessId, invoiceId)),
  );
  if (!payment) return { state: 'none' };
  return standingOf(businessId, payment.state === 'pending' ? await askAbout(businessId, payment) : payment);
}

/** The payer comes back from the bank: finds out what the bank said before the page is shown. */
export async function returnFromBank(link: string): Promise<void> {
  const { businessId, invoiceId } = found(await outsideBusiness((db) => linkHolder(db, link)));
  const payment = await readBusiness(businessId, (db) => pendingPayment(db, businessId, invoiceId));
  if (payment) await askAbout(businessId, payment);
}

/** The payer does not want to wait for the bank's approval: the attempt is closed at the processor, then another can begin. */
export async function withdrawAttempt(link: string): Promise<PaymentStanding | { state: 'none' }> {
  const { businessId, invoiceId } = found(await outsideBusiness((db) => linkHolder(db, link)));
  const payment = await readBusiness(businessId, (db) => pendingPayment(db, businessId, invoiceId));
  if (!payment?.approvalUrl) return payment ? standingOf(businessId, payment) : { state: 'none' };
  const { cards, clock } = services();
  const outcome = await cards.close(saleKey(businessId, payment.id));
  return standingOf(businessId, await recordOutcome(businessId, payment, outcome, await clock.now()));
}

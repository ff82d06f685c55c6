import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import type { PrintedInvoice } from '@/core/invoice/printed';
import { cardPaymentTaken } from '@/core/ledger/movements';
import { money, wireMinor } from '@/core/money/money';
import { cardText, type SaleOutcome } from '@/core/payment/outcome';
import { printedReceipt } from '@/core/payment/receipt';
import { type Business, businessById, takeNumber } from '@/db/businesses';
import { addReceived } from '@/db/day-sums';
import { type Invoice, lockedInvoice, updatePaid } from '@/db/invoices';
import { keepPromises } from '@/db/items';
import { announce } from '@/db/jobs';
import { insertEntry } from '@/db/ledger';
import { lockedOrder } from '@/db/orders';
import {
  lockedPayment,
  type Payment,
  paymentById,
  updatePaymentApproval,
  updatePaymentPaid,
  updatePaymentRefused,
} from '@/db/payments';
import { planOfCharge } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { insertReceipt } from '@/db/receipts';
import { dropReminders } from '@/db/reminders';
import { type HappenedTo, insertHappening } from '@/db/timeline';

import { inBusinessInTurn } from '@/db/transaction';
import { found } from './access';
import { followIntoPlan } from './plans/charge-outcome';
import { queueMessage } from './queue-message';
import { recordOrderPaid, recordOrderRefused } from './record-order';

/** Whose timeline tells of a payment. */
export const paidSubject = ({ invoiceId, orderId }: Pick<Payment, 'invoiceId' | 'orderId'>): HappenedTo =>
  invoiceId ? { invoiceId } : { orderId: found(orderId) };

/**
 * Writes down what became of a payment, once: whoever comes second finds it settled and changes nothing.
 *
 * Paid: the invoice owes less, the ledger is posted, a receipt gets its number, and the mails are queued, all or nothing.
 */
export function recordOutcome(
  businessId: string,
  { id: paymentId, invoiceId, orderId }: Pick<Payment, 'id' | 'invoiceId' | 'orderId'>,
  outcome: SaleOutcome,
  now: Date,
): Promise<Payment> {
  return inBusinessInTurn(businessId, async (tx) => {
    // What is paid first, then the payment: the same order everywhere, so that nobody waits in a circle.
    const invoice = invoiceId ? found(await lockedInvoice(tx, businessId, invoiceId)) : null;
    const order = orderId ? found(await lockedOrder(tx, businessId, orderId)) : null;
    const payment = found(await lockedPayment(tx, businessId, paymentId));
    if (payment.state !== 'pending') return payment;
    if (outcome.kind === 'accepted' && invoice) await recordPaid(tx, businessId, invoice, payment, outcome, now);
    if (outcome.kind === 'accepted' && order) await recordOrderPaid(tx, businessId, order, payment, outcome, now);
    if (outcome.kind === 'refused') await recordRefused(tx, businessId, payment, outcome, now);
    if (outcome.kind === 'refused' && order) await recordOrderRefused(tx, businessId, order, now);
    if (outcome.kind === 'accepted' || outcome.kind === 'refused')
      await followIntoPlan(tx, businessId, payment, outcome, now);
    if (outcome.kind === 'approval' && payment.approvalUrl === null) {
      await updatePaymentApproval(tx, businessId, paymentId, outcome);
      const happening = {
        kind: 'approval-asked',
        amount: wireMinor(payment.amountMinor),
        card: cardText(outcome.card),
      } as const;
      await insertHappening(tx, businessId, paidSubject(payment), happening, 'Dahlia', now);
    }
    await announce(tx, businessId);
    return found(await paymentById(tx, businessId, paymentId));
  });
}

async function recordRefused(
  tx: Tx,
  businessId: string,
  payment: Payment,
  { reason, card }: Extract<SaleOutcome, { kind: 'refused' }>,
  now: Date,
): Promise<void> {
  await updatePaymentRefused(tx, businessId, payment.id, { reason, card }, now);
  const words = card ? cardText(card) : payment.cardScheme ? `${payment.cardScheme} ·${payment.cardLast4}` : '';
  const happening = { kind: 'refused', amount: wireMinor(payment.amountMinor), reason, card: words } as const;
  await insertHappening(tx, businessId, paidSubject(payment), happening, 'Customer', now);
}

async function recordPaid(
  tx: Tx,
  businessId: string,
  invoice: Invoice,
  payment: Payment,
  sale: Extract<SaleOutcome, { kind: 'accepted' }>,
  now: Date,
): Promise<void> {
  const business = await businessById(tx, businessId);
  const printed = found(invoice.printed);
  const today = dateInZone(now, business.zone);
  const amount = money(payment.amountMinor, payment.currency);
  const left = invoice.dueMinor - payment.amountMinor;
  await updatePaymentPaid(tx, businessId, payment.id, sale, found(invoice.customerId), now);
  await updatePaid(tx, businessId, invoice.id, payment.amountMinor, now);
  await addReceived(tx, businessId, payment.currency, today, payment.amountMinor + payment.tipMinor);
  await insertEntry(
    tx,
    businessId,
    cardPaymentTaken(today, `Card payment of invoice ${printed.number}`, amount, sale.feeMinor, payment.tipMinor),
    { id: randomUUID(), cause: `payment:${payment.id}`, invoiceId: invoice.id, paymentId: payment.id },
    now,
  );
  await writeReceipt(tx, business, printed, payment, cardText(sale.card), left, now);
  if (left === 0n) await settled(tx, businessId, invoice.id, now);
}

/** What follows once nothing is due any more: no reminder waits, and what was promised leaves the stock. */
export async function settled(tx: Tx, businessId: string, invoiceId: string, now: Date): Promise<void> {
  await dropReminders(tx, businessId, invoiceId, now);
  await keepPromises(tx, businessId, invoiceId);
}

/** Gives a payment its numbered receipt, tells the timeline, and queues the mails to the customer and the business. */
export async function writeReceipt(
  tx: Tx,
  business: Business,
  printed: PrintedInvoice,
  payment: Payment,
  method: string,
  leftMinor: bigint,
  now: Date,
): Promise<void> {
  const number = String(await takeNumber(tx, business.id, 'receipt'));
  const receipt = printedReceipt(printed, {
    number,
    paidOn: dateInZone(payment.settledAt ?? now, business.zone),
    amountMinor: wireMinor(payment.amountMinor),
    tipMinor: wireMinor(payment.tipMinor),
    stillDueMinor: wireMinor(leftMinor),
    method,
  });
  const whole = {
    id: randomUUID(),
    number,
    paymentId: payment.id,
    invoiceId: payment.invoiceId,
    orderId: null,
    printed: receipt,
  };
  await insertReceipt(tx, business.id, whole, now);
  const happening = {
    kind: 'paid',
    amount: wireMinor(payment.amountMinor),
    card: method,
    receipt: number,
    ...(payment.tipMinor > 0n ? { tip: wireMinor(payment.tipMinor) } : {}),
  } as const;
  await insertHappening(tx, business.id, paidSubject(payment), happening, printed.payer.name, now);
  const about = { invoiceId: payment.invoiceId, paymentId: payment.id };
  const plan = payment.chargeId ? await planOfCharge(tx, business.id, payment.chargeId) : null;
  // A plan charges again and again: the business reads of it on its list, its customer as the plan says.
  if (plan && !plan.terms.receipts) return;
  const mails = [
    { kind: 'receipt', toName: printed.payer.name, toAddress: printed.payer.email },
    { kind: 'payment-notice', toName: business.name, toAddress: business.email },
  ] as const;
  for (const mail of mails) {
    if (mail.toAddress && !(plan && mail.kind === 'payment-notice'))
      await queueMessage(tx, business.id, { ...mail, ...about, key: `${mail.kind}:${payment.id}` }, now);
  }
}

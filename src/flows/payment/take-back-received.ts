import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { receivedTakenBack } from '@/core/ledger/movements';
import { jsonMinor, money } from '@/core/money/money';
import { isByHand } from '@/core/payment/methods';
import { statementDayOf } from '@/db/bank-lines';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { invoiceById, lockedInvoice, updateTakenBack } from '@/db/invoices';
import { insertEntry } from '@/db/ledger';
import { addToOfferSums } from '@/db/offers';
import { ordersBehindInvoices } from '@/db/orders';
import { sharesOf, updateReversed } from '@/db/partners';
import { lockedPayments, paymentById, updateRefunded } from '@/db/payments';
import { receiptOfPayment } from '@/db/receipts';
import { reviveReminders } from '@/db/reminders';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { promisedBy } from '@/flows/invoice/issue-invoices';
import { readingOf } from '@/flows/invoice/paper-setting';
import { sent } from '@/flows/invoice/sent-invoice';
import { queueMessage } from '@/flows/message/queue-message';
import { waitAgain } from '@/flows/parcel/hand-over-sales';
import { followTakenBack } from '@/flows/plan/follow-money';
import { promiseAgain } from '@/flows/stock/move-stock';

/**
 * Takes back money that was written down by mistake: the invoice owes it again, the ledger is posted the other way round, its
 * receipt does not count, and all that hung on it (stock, reminders, charges of plans, partners' parts) is as before. The same
 * press twice takes back once.
 *
 * @param tell whether the customer, who got the receipt, is told
 * @throws Refusal `payment-not-by-hand` for a card's, `already-cancelled`, `not-found`
 */
export const takeBackReceived = desk('take').turn(takeBackNow);

/** The work of taking back, within a transaction that does more. @throws Refusal likewise, `on-statement` */
export async function takeBackNow(
  tx: Writing,
  paymentId: string,
  { reason, tell }: { readonly reason: string; readonly tell: boolean },
): Promise<void> {
  const { invoiceId } = found(await paymentById(tx, paymentId));
  if (!invoiceId) throw new Refusal('payment-not-by-hand');
  const invoice = sent(found(await lockedInvoice(tx, invoiceId)));
  const payment = found((await lockedPayments(tx, [paymentId]))[0]);
  const { method, amountMinor, currency } = payment;
  if (payment.state === 'voided') return;
  if (!isByHand(method) || payment.state !== 'paid' || payment.refundedMinor > 0n)
    throw new Refusal('payment-not-by-hand');
  // What the bank has booked did come: first its line is for something else.
  if (await statementDayOf(tx, { paymentId })) throw new Refusal('on-statement');
  const business = await businessById(tx);
  const today = dateInZone(tx.now, business.zone);
  const wasSettled = invoice.dueMinor === 0n;

  const shares = await sharesOf(tx, paymentId);
  for (const { position, shareMinor, feeMinor } of shares)
    await updateReversed(tx, paymentId, position, { moreMinor: shareMinor, feeBackMinor: feeMinor });
  const partners = {
    shareMinor: shares.reduce((sum, { shareMinor }) => sum + shareMinor, 0n),
    feeMinor: shares.reduce((sum, { feeMinor }) => sum + feeMinor, 0n),
  };
  await updateRefunded(tx, paymentId, amountMinor, { isVoid: true });
  await updateTakenBack(tx, invoiceId, amountMinor);
  const order = (await ordersBehindInvoices(tx, [invoiceId])).get(invoiceId);
  if (order) await addToOfferSums(tx, order.offerId, order.currency, -amountMinor, -1);
  await insertEntry(
    tx,
    receivedTakenBack(
      today,
      `Payment of invoice ${invoice.number} taken back`,
      money(amountMinor, currency),
      method,
      partners,
    ),
    { id: randomUUID(), cause: `taken-back:${paymentId}`, invoiceId, paymentId },
  );

  if (wasSettled) {
    const customer = await customerById(tx, invoice.customerId ?? '');
    await promiseAgain(tx, promisedBy(invoiceId, await readingOf(tx, business, customer, invoice.paper)));
    await reviveReminders(tx, invoiceId, today);
    await waitAgain(tx, invoiceId, invoice.paper.shipsFirst ?? customer?.shipsFirst ?? null);
  }
  await followTakenBack(tx, business, found(await invoiceById(tx, invoiceId)));
  const receipt = await receiptOfPayment(tx, paymentId);
  await addToTimeline(
    tx,
    invoiceId,
    { kind: 'payment-taken-back', amount: jsonMinor(amountMinor), receipt: receipt?.number ?? '', reason },
    tx.name,
  );
  const { payer } = found(invoice.printed);
  if (tell && receipt && payer.email)
    await queueMessage(tx, {
      kind: 'receipt-taken-back',
      key: `receipt-taken-back:${paymentId}`,
      toName: payer.name,
      toAddress: payer.email,
      invoiceId,
      paymentId,
      details: reason ? { text: reason } : {},
    });
}

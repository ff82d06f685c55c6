import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { sendBy } from '@/core/invoice/send-with';
import { invoiceCancelled } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { lockedInvoice, updateCancelled } from '@/db/invoices';
import { insertEntry } from '@/db/ledger';
import { heldByPending } from '@/db/payments';
import { dropReminders } from '@/db/reminders';
import { addToTimeline } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sent } from '@/flows/invoice/sent-invoice';
import { dropSale } from '@/flows/parcel/hand-over-sales';
import { freePromised } from '@/flows/stock/move-stock';
import { creditingOf } from './crediting';
import { queueInvoice } from './invoice-message';

/**
 * Cancels an invoice on which nothing was paid: its number stays, the books take it back, no reminder goes out any more.
 *
 * @param tell whether the customer gets a mail
 * @throws Refusal `has-payments`, `invoice-not-sent`, `payment-under-way`
 */
export const cancelInvoice = desk('ask').turn(async (tx, id: string, reason: string, tell: boolean): Promise<void> => {
  const invoice = found(await lockedInvoice(tx, id));
  if (invoice.stage === 'cancelled') return;
  sent(invoice);
  if (invoice.paidMinor - invoice.refundedMinor > 0n) throw new Refusal('has-payments');
  if ((await heldByPending(tx, id)) > 0n) throw new Refusal('payment-under-way');
  const business = await businessById(tx);
  const printed = found(invoice.printed);
  const crediting = await creditingOf(tx, invoice);
  const { left } = crediting;
  const { taxes, flatTaxes } = crediting.credit({ all: true }).credited;
  const taxMinor = [...taxes.map(({ amount }) => amount), ...flatTaxes].reduce((sum, minor) => sum + minor, 0n);
  await updateCancelled(tx, id);
  if (left > 0n) {
    await insertEntry(
      tx,
      invoiceCancelled(dateInZone(tx.now, business.zone), printed.number, money(left, invoice.currency), taxMinor),
      { id: randomUUID(), cause: `invoice-cancelled:${id}`, invoiceId: id, paymentId: null },
    );
  }
  await dropReminders(tx, [id]);
  await freePromised(tx, [id]);
  await dropSale(tx, id);
  await addToTimeline(tx, id, { kind: 'cancelled', reason: reason.trim() }, tx.name);
  if (tell && printed.payer.email) {
    const customer = await customerById(tx, invoice.customerId ?? '');
    const how = sendBy('mail', { text: reason });
    await queueInvoice(tx, { id, printed }, customer, { how, key: `cancelled:${id}`, kind: 'cancelled' });
  }
});

import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { type PrintedCredit, taxesInPart } from '@/core/invoice/credit';
import { credited } from '@/core/ledger/movements';
import { jsonMinor, money } from '@/core/money/money';
import { businessById, takeNumber } from '@/db/businesses';
import { creditByRequest, insertCredit } from '@/db/credit-notes';
import { lockedInvoice, updateCredited } from '@/db/invoices';
import { insertEntry } from '@/db/ledger';
import { heldByPending } from '@/db/payments';
import { dropReminders } from '@/db/reminders';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sent } from '@/flows/invoice/sent-invoice';
import { queueMessage } from '@/flows/message/queue-message';

/**
 * Credits an invoice, whole or in part: a numbered credit note, posted to the books, to the customer by mail. The same press
 * twice is one credit note.
 *
 * @param amountMinor at most what has not been credited yet
 * @throws Refusal `credit-too-large`, `invoice-not-sent`, `already-cancelled`
 */
export const creditInvoice = desk('ask').turn(creditNow);

/** The work of crediting an invoice, within a transaction that does more. */
export async function creditNow(
  tx: Writing,
  id: string,
  asked: { amountMinor: bigint; reason: string; tell: boolean; requestKey: string },
): Promise<string> {
  const invoice = sent(found(await lockedInvoice(tx, id)));
  const before = await creditByRequest(tx, asked.requestKey);
  if (before) return before.number;
  if (asked.amountMinor <= 0n || asked.amountMinor > invoice.totalMinor - invoice.creditedMinor)
    throw new Refusal('credit-too-large');
  if ((await heldByPending(tx, id)) > 0n) throw new Refusal('payment-under-way');
  const business = await businessById(tx);
  const printed = found(invoice.printed);
  const today = dateInZone(tx.now, business.zone);
  const taxes = taxesInPart(printed, invoice.creditedMinor, asked.amountMinor);
  const taxMinor = taxes.reduce((sum, tax) => sum + tax.amount, 0n);
  const number = `C${await takeNumber(tx, 'credit-note')}`;
  const { locale, currency, seller, payer, total, logoId, accent, pricesIncludeTax } = printed;
  const note: PrintedCredit = {
    number,
    invoice: { number: printed.number, currency, locale, seller, payer, total, logoId, accent, pricesIncludeTax },
    issuedOn: today,
    reason: asked.reason.trim(),
    amount: jsonMinor(asked.amountMinor),
    taxes: taxes
      .filter((tax) => tax.amount > 0n)
      .map(({ name, rate, amount }) => ({ name, rate, amount: jsonMinor(amount) })),
  };
  const creditId = randomUUID();
  await insertCredit(
    tx,
    {
      id: creditId,
      invoiceId: id,
      number,
      currency,
      amountMinor: asked.amountMinor,
      taxMinor,
      reason: note.reason,
      printed: note,
      issuedOn: today,
    },
    asked.requestKey,
  );
  await updateCredited(tx, id, asked.amountMinor);
  await insertEntry(tx, credited(today, number, money(asked.amountMinor, currency), taxMinor), {
    id: randomUUID(),
    cause: `credit:${creditId}`,
    invoiceId: id,
    paymentId: null,
  });
  if (invoice.dueMinor <= asked.amountMinor) await dropReminders(tx, [id]);
  const event = { kind: 'credited', amount: note.amount, number, reason: note.reason } as const;
  await addToTimeline(tx, id, event, tx.name);
  if (asked.tell && payer.email) {
    const message = { kind: 'credit-note', key: `credit:${creditId}`, invoiceId: id, details: { creditId } } as const;
    await queueMessage(tx, { ...message, toName: payer.name, toAddress: payer.email });
  }
  return number;
}

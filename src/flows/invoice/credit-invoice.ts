import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { credited } from '@/core/ledger/movements';
import { jsonMinor, money } from '@/core/money/money';
import { creditedPart } from '@/core/refund/credited-part';
import type { PrintedCredit } from '@/core/refund/printed-credit';
import { keptStep } from '@/core/refund/printed-document';
import type { CreditStep } from '@/core/tally/credit-steps';
import { businessById, takeNumber } from '@/db/businesses';
import { type CreditNote, creditByRequest, insertCredit } from '@/db/credit-notes';
import { type Invoice, lockedInvoice, updateCredited } from '@/db/invoices';
import { insertEntry } from '@/db/ledger';
import { heldByPending } from '@/db/payments';
import { pendingRefundsOf } from '@/db/refunds';
import { dropReminders } from '@/db/reminders';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { orRefused } from '@/flows/invoice/or-refused';
import { sent } from '@/flows/invoice/sent-invoice';
import { queueMessage } from '@/flows/message/queue-message';
import { creditingOf } from './crediting';

/**
 * Credits an invoice, whole or in part: a numbered credit note, posted to the books, to the customer by mail. The same press
 * twice is one credit note.
 *
 * @param asked.amountMinor at most what has not been credited yet
 * @throws Refusal `credit-too-large`, `invoice-not-sent`, `already-cancelled`, `credited-by-lines`, `refund-under-way`
 */
export const creditInvoice = desk('ask').turn(
  async (tx, id: string, asked: Omit<ToCredit, 'step'> & { readonly amountMinor: bigint }): Promise<string> =>
    (await creditAmount(tx, id, asked)).number,
);

/** A credit note to be written: how it credits the invoice, why, and whether the customer gets it by mail. */
export type ToCredit = {
  readonly step: CreditStep;
  readonly reason: string;
  readonly tell: boolean;
  readonly requestKey: string;
};

type Written = Pick<CreditNote, 'id' | 'number'>;

/** Credits a sum, within a transaction that does more. */
export async function creditAmount(
  tx: Writing,
  id: string,
  { amountMinor, ...asked }: Omit<ToCredit, 'step'> & { readonly amountMinor: bigint },
): Promise<Written> {
  const invoice = sent(found(await lockedInvoice(tx, id)));
  const before = await creditByRequest(tx, asked.requestKey);
  if (before) return before;
  if ((await heldByPending(tx, id)) > 0n) throw new Refusal('payment-under-way');
  if ((await pendingRefundsOf(tx, id)).length > 0) throw new Refusal('refund-under-way');
  const { left } = await creditingOf(tx, invoice);
  if (amountMinor <= 0n || amountMinor > left) throw new Refusal('credit-too-large');
  const step: CreditStep = amountMinor === left ? { all: true } : { amount: amountMinor };
  return creditNow(tx, invoice, { ...asked, step });
}

/** The work of crediting a locked invoice by a step of `calculation.md` 15. @throws Refusal `credit-too-large`, `credited-by-lines` */
export async function creditNow(tx: Writing, invoice: Invoice, asked: ToCredit): Promise<Written> {
  const { id } = invoice;
  const known = await creditByRequest(tx, asked.requestKey);
  if (known) return known;
  const business = await businessById(tx);
  const printed = found(invoice.printed);
  const before = await creditingOf(tx, invoice);
  const { credited: part } = orRefused(() => before.credit(asked.step));
  const today = dateInZone(tx.now, business.zone);
  const number = `C${await takeNumber(tx, 'credit-note')}`;
  const lines = creditedPart(printed, before, asked.step, part);
  const { locale, currency, seller, payer, total, logoId, accent, pricesIncludeTax } = printed;
  const taxes = [
    ...printed.taxes.map(({ name, rate }, at) => ({ name, rate, amount: part.taxes[at]?.amount ?? 0n })),
    ...printed.flatTaxes.map(({ name }, at) => ({ name, rate: '', amount: part.flatTaxes[at] ?? 0n })),
  ];
  const note: PrintedCredit = {
    number,
    invoice: { number: printed.number, currency, locale, seller, payer, total, logoId, accent, pricesIncludeTax },
    issuedOn: today,
    reason: asked.reason.trim(),
    amount: jsonMinor(part.total),
    taxes: taxes
      .filter(({ amount }) => amount !== 0n)
      .map(({ name, rate, amount }) => ({ name, rate, amount: jsonMinor(amount) })),
    ...(lines ? { part: lines } : {}),
  };
  const taxMinor = taxes.reduce((sum, { amount }) => sum + amount, 0n);
  const creditId = randomUUID();
  const kept = {
    id: creditId,
    invoiceId: id,
    number,
    currency,
    amountMinor: part.total,
    taxMinor,
    reason: note.reason,
    step: keptStep(asked.step),
    printed: note,
    issuedOn: today,
  };
  await insertCredit(tx, kept, asked.requestKey);
  await updateCredited(tx, id, part.total);
  await insertEntry(tx, credited(today, number, money(part.total, currency), taxMinor), {
    id: randomUUID(),
    cause: `credit:${creditId}`,
    invoiceId: id,
    paymentId: null,
  });
  if (invoice.dueMinor <= part.total) await dropReminders(tx, [id]);
  const event = { kind: 'credited', amount: note.amount, number, reason: note.reason } as const;
  await addToTimeline(tx, id, event, tx.name);
  if (asked.tell && payer.email) {
    const message = { kind: 'credit-note', key: `credit:${creditId}`, invoiceId: id, details: { creditId } } as const;
    await queueMessage(tx, { ...message, toName: payer.name, toAddress: payer.email });
  }
  return { id: creditId, number };
}

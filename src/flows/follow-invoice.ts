import { randomUUID } from 'node:crypto';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import { creditedTaxes, type PrintedCredit } from '@/core/invoice/credit';
import { type SendWith, sendBy } from '@/core/invoice/send-with';
import { credited, invoiceCancelled, moneyReceived, type ReceivedBy } from '@/core/ledger/movements';
import { money, wireMinor } from '@/core/money/money';
import { payable } from '@/core/payment/part-payment';
import { wordsOf } from '@/core/words/words';
import { businessById, takeNumber } from '@/db/businesses';
import { creditByRequest, insertCredit } from '@/db/credit-notes';
import { customerById } from '@/db/customers';
import { addReceived } from '@/db/day-sums';
import { type Invoice, invoiceById, lockedInvoice, updateCancelled, updateCredited, updatePaid } from '@/db/invoices';
import { deletePromises } from '@/db/items';
import { announce } from '@/db/jobs';
import { insertEntry } from '@/db/ledger';
import { heldByPending, insertReceived, paymentByAttempt, paymentById } from '@/db/payments';
import type { Actor } from '@/db/people';
import type { Tx } from '@/db/pool';
import { questionById, updateAnswered } from '@/db/questions';
import { dropReminders } from '@/db/reminders';
import { insertHappening } from '@/db/timeline';
import { inBusiness, inBusinessInTurn } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { followMoney } from './plans/charge-outcome';
import { queueMessage } from './queue-message';
import { settled, writeReceipt } from './record-outcome';
import { Refusal } from './refusal';
import { queueInvoice } from './send-invoice';

const sent = (invoice: Invoice): Invoice => {
  if (invoice.stage === 'cancelled') throw new Refusal('already-cancelled');
  if (invoice.stage !== 'sent') throw new Refusal('invoice-not-sent');
  return invoice;
};

/**
 * Reminds the customer now.
 *
 * @param requestKey one press, one reminder
 * @throws Refusal `already-paid`, `already-cancelled`, `customer-without-email`, `customer-without-phone`
 */
export async function remindNow(
  actor: Actor,
  id: string,
  requestKey: string,
  how: SendWith = sendBy('mail'),
): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const invoice = sent(found(await lockedInvoice(tx, actor.businessId, id)));
    if (invoice.dueMinor === 0n) throw new Refusal('already-paid');
    await queueReminder(tx, actor.businessId, invoice, `reminder:${id}:${requestKey}`, how, actor.name, now);
    await announce(tx, actor.businessId);
  });
}

/** Queues a reminder and tells the timeline. @param offset the planned one's days from the due date; else they are counted */
export async function queueReminder(
  tx: Tx,
  businessId: string,
  invoice: Invoice,
  key: string,
  how: SendWith,
  byName: string,
  now: Date,
  offset?: number,
): Promise<void> {
  const business = await businessById(tx, businessId);
  const printed = found(invoice.printed);
  const customer = await customerById(tx, businessId, invoice.customerId ?? '');
  const to = how.way === 'mail' ? (how.to[0] ?? printed.payer.email) : how.phone || customer?.phone || '';
  if (!to) throw new Refusal(how.way === 'mail' ? 'customer-without-email' : 'customer-without-phone');
  const days =
    offset ?? Math.round((Date.parse(dateInZone(now, business.zone)) - Date.parse(printed.dueOn)) / 86_400_000);
  await queueInvoice(tx, business, invoice.id, printed, customer, how, key, now, 'reminder', days);
  await insertHappening(tx, businessId, invoice.id, { kind: 'reminded', to }, byName, now);
}

/** Money that came another way than by card. `receivedOn` is a day of the business's zone. */
export type Received = {
  readonly amountMinor: bigint;
  readonly method: ReceivedBy;
  readonly reference: string;
  readonly receivedOn: string;
  readonly requestKey: string;
};

/**
 * Writes down money received: the invoice owes less, the ledger is posted, the customer gets a receipt. The same press twice
 * is one payment.
 *
 * @throws Refusal `payment-too-large`, `already-paid`, `already-cancelled`, `payment-under-way`
 */
export async function recordReceived(actor: Actor, id: string, received: Received): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const { businessId } = actor;
  await inBusinessInTurn(businessId, async (tx) => {
    const invoice = sent(found(await lockedInvoice(tx, businessId, id)));
    if (await paymentByAttempt(tx, businessId, id, received.requestKey)) return;
    const business = await businessById(tx, businessId);
    if (invoice.dueMinor === 0n) throw new Refusal('already-paid');
    if ((await heldByPending(tx, businessId, id)) > 0n) throw new Refusal('payment-under-way');
    const { due } = payable({
      total: invoice.totalMinor,
      paid: invoice.paidMinor,
      refunded: invoice.refundedMinor,
      credited: invoice.creditedMinor,
      parts: true,
      smallest: 1n,
    });
    if (received.amountMinor <= 0n || received.amountMinor > due) throw new Refusal('payment-too-large');
    const today = dateInZone(now, business.zone);
    const on = isCalendarDate(received.receivedOn) && received.receivedOn <= today ? received.receivedOn : today;
    const receivedAt = on === today ? now : instantInZone(on, '12:00', business.zone);
    const paymentId = randomUUID();
    const { currency, customerId } = invoice;
    await insertReceived(
      tx,
      businessId,
      {
        id: paymentId,
        invoiceId: id,
        customerId: found(customerId),
        currency,
        amountMinor: received.amountMinor,
        method: received.method,
        reference: received.reference,
        attemptKey: received.requestKey,
        receivedAt,
      },
      now,
    );
    await updatePaid(tx, businessId, id, received.amountMinor, receivedAt);
    await addReceived(tx, businessId, currency, on, received.amountMinor);
    const printed = found(invoice.printed);
    await insertEntry(
      tx,
      businessId,
      moneyReceived(on, `Payment of invoice ${printed.number}`, money(received.amountMinor, currency), received.method),
      { id: randomUUID(), cause: `payment:${paymentId}`, invoiceId: id, paymentId },
      now,
    );
    const left = due - received.amountMinor;
    const words = wordsOf(printed.locale).methods[received.method];
    const method = [words, received.reference].filter(Boolean).join(', ');
    const payment = found(await paymentById(tx, businessId, paymentId));
    await writeReceipt(tx, business, printed, payment, method, left, now);
    if (left === 0n) await settled(tx, businessId, id, now);
    await followMoney(tx, businessId, id, null, method, now);
    await announce(tx, businessId);
  });
}

/**
 * Cancels an invoice on which nothing was paid: its number stays, the books take it back, no reminder goes out any more.
 *
 * @param tell whether the customer gets a mail
 * @throws Refusal `has-payments`, `invoice-not-sent`, `payment-under-way`
 */
export async function cancelInvoice(actor: Actor, id: string, reason: string, tell: boolean): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const { businessId } = actor;
  await inBusinessInTurn(businessId, async (tx) => {
    const invoice = found(await lockedInvoice(tx, businessId, id));
    if (invoice.stage === 'cancelled') return;
    sent(invoice);
    if (invoice.paidMinor - invoice.refundedMinor > 0n) throw new Refusal('has-payments');
    if ((await heldByPending(tx, businessId, id)) > 0n) throw new Refusal('payment-under-way');
    const business = await businessById(tx, businessId);
    const printed = found(invoice.printed);
    const left = invoice.totalMinor - invoice.creditedMinor;
    const taxes = creditedTaxes(printed, invoice.creditedMinor, left).reduce((sum, tax) => sum + tax.amount, 0n);
    await updateCancelled(tx, businessId, id, now);
    if (left > 0n) {
      await insertEntry(
        tx,
        businessId,
        invoiceCancelled(dateInZone(now, business.zone), printed.number, money(left, invoice.currency), taxes),
        { id: randomUUID(), cause: `invoice-cancelled:${id}`, invoiceId: id, paymentId: null },
        now,
      );
    }
    await dropReminders(tx, businessId, id, now);
    await deletePromises(tx, businessId, id);
    await insertHappening(tx, businessId, id, { kind: 'cancelled', reason: reason.trim() }, actor.name, now);
    if (tell && printed.payer.email) {
      const customer = await customerById(tx, businessId, invoice.customerId ?? '');
      const how = sendBy('mail', { text: reason });
      await queueInvoice(tx, business, id, printed, customer, how, `cancelled:${id}`, now, 'cancelled');
    }
    await announce(tx, businessId);
  });
}

/**
 * Credits an invoice, whole or in part: a numbered credit note, posted to the books, to the customer by mail. The same press
 * twice is one credit note.
 *
 * @param amountMinor at most what has not been credited yet
 * @throws Refusal `credit-too-large`, `invoice-not-sent`, `already-cancelled`
 */
export async function creditInvoice(
  actor: Actor,
  id: string,
  asked: { amountMinor: bigint; reason: string; tell: boolean; requestKey: string },
): Promise<string> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const { businessId } = actor;
  return inBusinessInTurn(businessId, async (tx) => {
    const invoice = sent(found(await lockedInvoice(tx, businessId, id)));
    const before = await creditByRequest(tx, businessId, asked.requestKey);
    if (before) return before.number;
    if (asked.amountMinor <= 0n || asked.amountMinor > invoice.totalMinor - invoice.creditedMinor)
      throw new Refusal('credit-too-large');
    if ((await heldByPending(tx, businessId, id)) > 0n) throw new Refusal('payment-under-way');
    const business = await businessById(tx, businessId);
    const printed = found(invoice.printed);
    const today = dateInZone(now, business.zone);
    const taxes = creditedTaxes(printed, invoice.creditedMinor, asked.amountMinor);
    const taxMinor = taxes.reduce((sum, tax) => sum + tax.amount, 0n);
    const number = `C${await takeNumber(tx, businessId, 'credit-note')}`;
    const { locale, currency, seller, payer, total, logoId, accent, pricesIncludeTax } = printed;
    const note: PrintedCredit = {
      number,
      invoice: { number: printed.number, currency, locale, seller, payer, total, logoId, accent, pricesIncludeTax },
      issuedOn: today,
      reason: asked.reason.trim(),
      amount: wireMinor(asked.amountMinor),
      taxes: taxes
        .filter((tax) => tax.amount > 0n)
        .map(({ name, rate, amount }) => ({ name, rate, amount: wireMinor(amount) })),
    };
    const creditId = randomUUID();
    await insertCredit(
      tx,
      businessId,
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
      now,
    );
    await updateCredited(tx, businessId, id, asked.amountMinor, now);
    await insertEntry(
      tx,
      businessId,
      credited(today, number, money(asked.amountMinor, currency), taxMinor),
      { id: randomUUID(), cause: `credit:${creditId}`, invoiceId: id, paymentId: null },
      now,
    );
    if (invoice.dueMinor <= asked.amountMinor) await dropReminders(tx, businessId, id, now);
    const happening = { kind: 'credited', amount: note.amount, number, reason: note.reason } as const;
    await insertHappening(tx, businessId, id, happening, actor.name, now);
    if (asked.tell && payer.email) {
      const message = { kind: 'credit-note', key: `credit:${creditId}`, invoiceId: id, details: { creditId } } as const;
      await queueMessage(tx, businessId, { ...message, toName: payer.name, toAddress: payer.email }, now);
    }
    await announce(tx, businessId);
    return number;
  });
}

/** Answers a customer's question by mail, once. @throws Refusal `customer-without-email` */
export async function answerQuestion(actor: Actor, questionId: string, text: string): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const { businessId } = actor;
  await inBusiness(businessId, async (tx) => {
    const question = found(await questionById(tx, businessId, questionId));
    const invoice = found(await invoiceById(tx, businessId, question.invoiceId));
    const { payer } = found(invoice.printed);
    if (!payer.email) throw new Refusal('customer-without-email');
    if (!(await updateAnswered(tx, businessId, questionId, { text, byName: actor.name, at: now }))) return;
    await insertHappening(tx, businessId, invoice.id, { kind: 'answer', text }, actor.name, now);
    await queueMessage(
      tx,
      businessId,
      {
        kind: 'answer',
        key: `answer:${questionId}`,
        invoiceId: invoice.id,
        toName: payer.name,
        toAddress: payer.email,
        details: { text, subject: question.text },
      },
      now,
    );
    await announce(tx, businessId);
  });
}

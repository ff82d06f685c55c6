import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { type Customer, distinctAddresses } from '@/core/customer/customer';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { issueDate } from '@/core/invoice/due';
import { counterKey, numberText } from '@/core/invoice/numbering';
import { type PrintedInvoice, printedInvoice } from '@/core/invoice/printed';
import type { PaperReading } from '@/core/invoice/read-paper';
import { reminderDays } from '@/core/invoice/reminders';
import { type SendingWay, type SendWith, sendBy } from '@/core/invoice/send-with';
import { sendingProblems } from '@/core/invoice/sending';
import { invoiceSent } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { businessById, takeNumber } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { type Invoice, invoiceById, lockedInvoice, numberTaken, updateSent } from '@/db/invoices';
import { insertPromise } from '@/db/items';
import { announce } from '@/db/jobs';
import { insertEntry } from '@/db/ledger';
import type { Actor } from '@/db/people';
import type { Tx } from '@/db/pool';
import { replaceReminders } from '@/db/reminders';
import { insertHappening } from '@/db/timeline';
import { inBusiness, inBusinessInTurn } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { headingOf, readingOf, seriesOf } from './paper-setting';
import { queueMessage } from './queue-message';
import { Refusal } from './refusal';

/**
 * Makes a draft final: gives it the next number (or the one typed), books it, and queues its message. Returns the number.
 *
 * An invoice that is already sent answers its number again: the same click twice is one sending.
 *
 * @param revision what the person saw; a draft that changed since is not sent
 * @throws Refusal `paper-not-ready` with the places, `customer-without-email`, `customer-without-phone`, `draft-changed-elsewhere`
 */
export async function sendInvoice(
  actor: Actor,
  id: string,
  revision: number,
  how: SendWith | SendingWay,
): Promise<string> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  return inBusinessInTurn(actor.businessId, async (tx) => {
    const draft = found(await lockedInvoice(tx, actor.businessId, id));
    if (draft.stage !== 'draft') return draft.number ?? '';
    if (draft.revision !== revision) throw new Refusal('draft-changed-elsewhere');
    const business = await businessById(tx, actor.businessId);
    const number = await sendInTurn(tx, actor, business, draft, typeof how === 'string' ? sendBy(how) : how, now);
    await announce(tx, actor.businessId);
    return number;
  });
}

/** The work of sending, for whoever already has the business's turn: a person, the worker's minute, a batch. */
export async function sendInTurn(
  tx: Tx,
  actor: Pick<Actor, 'businessId' | 'name'>,
  business: Business,
  draft: Invoice,
  how: SendWith,
  now: Date,
): Promise<string> {
  const { businessId } = actor;
  const today = dateInZone(now, business.zone);
  const customer = draft.paper.customerId ? await customerById(tx, businessId, draft.paper.customerId) : null;
  const reading = await readyToSend(tx, business, customer, draft, how, today);
  const heading = await headingOf(tx, business, customer, draft.paper, '', today);
  const number = await numberOf(tx, businessId, draft, today);
  const printed = { ...printedInvoice(draft.paper, reading, heading), number };
  const { total, taxTotal } = reading.tally;
  await updateSent(tx, businessId, draft.id, { number, printed, totalMinor: total, taxMinor: taxTotal }, now);
  await insertEntry(
    tx,
    businessId,
    invoiceSent(printed.issuedOn, number, money(total, printed.currency), taxTotal),
    { id: randomUUID(), cause: `invoice-sent:${draft.id}`, invoiceId: draft.id, paymentId: null },
    now,
  );
  await promiseStock(tx, businessId, draft.id, reading);
  const offsets = draft.paper.reminders ?? business.reminders;
  await replaceReminders(tx, businessId, draft.id, reminderDays(offsets, printed.dueOn, today));
  await insertHappening(tx, businessId, draft.id, { kind: 'sent', number, way: how.way }, actor.name, now);
  await queueInvoice(tx, business, draft.id, printed, customer, how, `invoice:${draft.id}`, now);
  return number;
}

async function readyToSend(
  tx: Tx,
  business: Business,
  customer: Customer | null,
  draft: Invoice,
  how: SendWith,
  today: CalendarDate,
): Promise<PaperReading> {
  const reading = await readingOf(tx, business, customer, draft.paper);
  const problems = sendingProblems(draft.paper, reading, today);
  if (draft.paper.ways.transfer && !business.bank.account)
    problems.push({
      field: 'ways',
      words: 'Write your account into the business’s profile first, or take bank transfer off.',
    });
  const typed = draft.paper.number.trim();
  if (typed && (await numberTaken(tx, business.id, typed)))
    problems.push({ field: 'number', words: `There is an invoice ${typed} already.` });
  if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
  if (how.way === 'mail' && how.to.length === 0 && !customer?.email) throw new Refusal('customer-without-email');
  if ((how.way === 'text' || how.way === 'chat') && !how.phone && !customer?.phone)
    throw new Refusal('customer-without-phone');
  return reading;
}

/** The number: as typed, else the next of the series that no typed one has taken before. */
async function numberOf(tx: Tx, businessId: string, draft: Invoice, today: CalendarDate): Promise<string> {
  const typed = draft.paper.number.trim();
  if (typed) return typed;
  const series = await seriesOf(tx, businessId, draft.paper);
  const on = issueDate(draft.paper, today);
  for (;;) {
    const number = numberText(series, await takeNumber(tx, businessId, counterKey(series, on)), on);
    if (!(await numberTaken(tx, businessId, number))) return number;
  }
}

async function promiseStock(tx: Tx, businessId: string, invoiceId: string, reading: PaperReading): Promise<void> {
  for (const [at, line] of reading.counted.entries()) {
    const quantity = reading.document.lines[at]?.quantity;
    if (!line.itemId || !quantity) continue;
    await insertPromise(tx, businessId, { invoiceId, itemId: line.itemId, optionId: line.optionId ?? null, quantity });
  }
}

/** Queues the messages with which an invoice goes out: one for each address. */
export async function queueInvoice(
  tx: Tx,
  business: Pick<Business, 'id'>,
  invoiceId: string,
  printed: PrintedInvoice,
  customer: Pick<Customer, 'copies' | 'phone'> | null,
  how: SendWith,
  key: string,
  now: Date,
  kind: 'invoice' | 'reminder' | 'changed' | 'cancelled' = 'invoice',
  offset?: number,
): Promise<void> {
  const details = {
    ...(how.text.trim() ? { text: how.text.trim() } : {}),
    ...(offset === undefined ? {} : { offset }),
  };
  const base = { kind, invoiceId, details, toName: printed.payer.name } as const;
  if (how.way === 'text' || how.way === 'chat') {
    const toAddress = how.phone || customer?.phone || '';
    await queueMessage(tx, business.id, { ...base, key, way: how.way, toAddress }, now);
  }
  if (how.way !== 'mail') return;
  const addresses = how.to.length > 0 ? how.to : [printed.payer.email, ...(customer?.copies ?? [])];
  const different = distinctAddresses(addresses.filter(Boolean));
  for (const [at, toAddress] of different.entries()) {
    await queueMessage(
      tx,
      business.id,
      { ...base, key: at === 0 ? key : `${key}:${toAddress.toLowerCase()}`, toAddress },
      now,
    );
  }
}

/**
 * Sends an invoice once more, as it stands.
 *
 * @param requestKey made by the screen for one click, so that the same click twice is one e-mail
 * @throws Refusal `invoice-not-sent`, `customer-without-email`, `already-paid`
 */
export async function sendInvoiceAgain(
  actor: Actor,
  id: string,
  requestKey: string,
  how: SendWith = sendBy('mail'),
): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const invoice = found(await lockedInvoice(tx, actor.businessId, id));
    if (invoice.stage !== 'sent' || !invoice.printed) throw new Refusal('invoice-not-sent');
    if (invoice.dueMinor === 0n) throw new Refusal('already-paid');
    const customer = await customerById(tx, actor.businessId, invoice.customerId ?? '');
    if (how.way === 'mail' && how.to.length === 0 && !invoice.printed.payer.email)
      throw new Refusal('customer-without-email');
    if ((how.way === 'text' || how.way === 'chat') && !how.phone && !customer?.phone)
      throw new Refusal('customer-without-phone');
    const key = `invoice:${id}:${requestKey}`;
    await queueInvoice(tx, { id: actor.businessId }, id, invoice.printed, customer, how, key, now);
    const to = how.way === 'mail' ? (how.to[0] ?? invoice.printed.payer.email) : how.phone || customer?.phone || '';
    await insertHappening(tx, actor.businessId, id, { kind: 'sent-again', to }, actor.name, now);
    await announce(tx, actor.businessId);
  });
}

/** Sends the e-mail as it would go out now to the person at the desk; no number is given, nothing is booked. */
export async function sendTrial(actor: Actor, id: string, requestKey: string, to: string): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    found(await invoiceById(tx, actor.businessId, id));
    const message = {
      kind: 'trial',
      key: `trial:${id}:${requestKey}`,
      invoiceId: id,
      toName: actor.name,
      toAddress: to,
    } as const;
    await queueMessage(tx, actor.businessId, message, now);
  });
}

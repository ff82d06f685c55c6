import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { maySend } from '@/core/business/opening';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { issueDate } from '@/core/invoice/due';
import { counterKey, numberText, seriesFor } from '@/core/invoice/numbering';
import { bankFor, printedInvoice } from '@/core/invoice/printed';
import { type PaperReading, readPaper } from '@/core/invoice/read-paper';
import { reminderDays } from '@/core/invoice/reminders';
import { type SendWith, sendBy } from '@/core/invoice/send-with';
import { sendingProblems } from '@/core/invoice/sending';
import { invoiceBroughtIn, invoiceSent } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import type { Paper } from '@/core/paper/paper';
import { numberSeries, takeNumbers } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { type Invoice, type IssuedInvoice, insertSent, type NewDraft, numbersTaken, updateSent } from '@/db/invoices';
import type { StockPromise } from '@/db/items';
import { insertEntries } from '@/db/ledger';
import type { Tx } from '@/db/pool';
import { insertReminders } from '@/db/reminders';
import { taxesOf } from '@/db/taxes';
import { termsById } from '@/db/terms';
import { addLines } from '@/db/timeline';
import type { Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { queueMessages } from '@/flows/message/queue-message';
import { handOverInvoices } from '@/flows/parcel/hand-over-sales';
import { promise } from '@/flows/stock/move-stock';
import { approvalMessages } from './approvers';
import { invoiceMessages } from './invoice-message';
import { headingFor, settingFor } from './paper-setting';

/** An invoice to be issued: a draft that is kept already, or one that is `fresh` and issued as it is made. */
export type ToIssue = {
  readonly id: string;
  readonly paper: Paper;
  readonly customer: Customer | null;
  readonly how: SendWith;
  /** In whose name it is sent. */
  readonly byName: string;
  readonly fresh?: Pick<NewDraft, 'linkToken' | 'origin'> & {
    readonly made: { readonly by: 'repeat' | 'batch' | 'plan' | 'import'; readonly byName: string };
  };
  /** Whether it was written elsewhere, and only what is still owed on it is asked for here. */
  readonly broughtIn?: boolean;
};

type Ready = { readonly one: ToIssue; readonly reading: PaperReading };

/**
 * Makes invoices final, in a handful of statements whatever their number: each gets its number (the typed one, or the next of its
 * series), is booked, holds its stock, and has its message and its reminders. One that is not ready is refused, takes no number, and
 * the others go on.
 *
 * @returns for each, in the same order, what it is now, or why it was not issued
 */
export async function issueInvoices(
  tx: Writing,
  business: Business,
  items: readonly ToIssue[],
): Promise<(IssuedInvoice | Refusal)[]> {
  if (!maySend(business)) return items.map(() => new Refusal('mail-not-confirmed'));
  const today = dateInZone(tx.now, business.zone);
  const taxes = await taxesOf(tx);
  const typed = items.map(({ paper }) => paper.number.trim()).filter(Boolean);
  const taken = typed.length > 0 ? await numbersTaken(tx, typed) : new Set<string>();
  const ready: Ready[] = [];
  const refused = new Map<ToIssue, Refusal>();
  for (const one of items) {
    const reading = readPaper(one.paper, settingFor(business, taxes, one.customer, one.paper));
    const refusal = whyNot(business, one, reading, { taken, today });
    if (refusal) refused.set(one, refusal);
    else ready.push({ one, reading });
    if (one.paper.number.trim()) taken.add(one.paper.number.trim());
  }
  const numbers = await numbersFor(tx, business, ready, today);
  const terms = new Map<string, Awaited<ReturnType<typeof termsById>>>();
  for (const id of new Set(ready.map(({ one }) => one.paper.termsId))) if (id) terms.set(id, await termsById(tx, id));
  const issued = ready.map(({ one, reading }, at) => {
    const number = numbers[at] ?? '';
    const { paper } = one;
    const heading = headingFor(business, one.customer, paper, { terms: terms.get(paper.termsId ?? '') ?? null, today });
    const { total, taxTotal } = reading.tally;
    const printed = printedInvoice(paper, reading, { ...heading, number });
    return { one, reading, invoice: { id: one.id, number, printed, totalMinor: total, taxMinor: taxTotal } };
  });
  await writeIssued(tx, business, issued);
  const known = new Map<ToIssue, IssuedInvoice>(issued.map(({ one, invoice }) => [one, invoice]));
  return items.map((one) => known.get(one) ?? refused.get(one) ?? new Refusal('paper-not-ready'));
}

/**
 * Makes invoices that were written elsewhere final here, with the numbers and days that they have: what is owed is booked, without revenue
 * and tax, which are in the books of before. Nothing is sent. Returns how many.
 */
export async function issueBroughtIn(
  tx: Writing,
  business: Business,
  items: readonly (Pick<ToIssue, 'id' | 'paper' | 'customer' | 'byName'> & { readonly linkToken: string })[],
): Promise<number> {
  if (!maySend(business)) throw new Refusal('mail-not-confirmed');
  const taxes = await taxesOf(tx);
  const today = dateInZone(tx.now, business.zone);
  const issued = items.map(({ linkToken, ...one }): Issued => {
    const reading = readPaper(one.paper, settingFor(business, taxes, one.customer, one.paper));
    const heading = headingFor(business, one.customer, one.paper, { terms: null, today });
    const printed = printedInvoice(one.paper, reading, { ...heading, number: one.paper.number });
    const { total, taxTotal } = reading.tally;
    return {
      reading,
      one: {
        ...one,
        how: sendBy('hand'),
        broughtIn: true,
        fresh: { linkToken, origin: 'desk', made: { by: 'import', byName: one.byName } },
      },
      invoice: { id: one.id, number: one.paper.number, printed, totalMinor: total, taxMinor: taxTotal },
    };
  });
  await writeIssued(tx, business, issued);
  return issued.length;
}

/** Issues one draft in the name of who has the turn. Returns its number. @throws Refusal where it is not ready */
export async function issueDraft(tx: Writing, business: Business, draft: Invoice, how: SendWith): Promise<string> {
  const customer = draft.paper.customerId ? await customerById(tx, draft.paper.customerId) : null;
  const [issued] = await issueInvoices(tx, business, [
    { id: draft.id, paper: draft.paper, customer, how, byName: tx.name },
  ]);
  if (!issued || issued instanceof Refusal) throw issued ?? new Refusal('paper-not-ready');
  return issued.number;
}

function whyNot(
  business: Business,
  { paper, customer, how }: ToIssue,
  reading: PaperReading,
  { taken, today }: { readonly taken: ReadonlySet<string>; readonly today: CalendarDate },
): Refusal | null {
  const problems = sendingProblems(paper, reading, today);
  if (paper.ways.transfer && !bankFor(business.bank, paper.currency || business.currency).account)
    problems.push({
      field: 'ways',
      words: 'Write your account into the business’s profile first, or take bank transfer off.',
    });
  const typed = paper.number.trim();
  if (typed && taken.has(typed)) problems.push({ field: 'number', words: `There is an invoice ${typed} already.` });
  if (problems.length > 0) return new Refusal('paper-not-ready', problems);
  if (how.way === 'mail' && how.to.length === 0 && !customer?.email) return new Refusal('customer-without-email');
  const short = how.way === 'text' || how.way === 'chat';
  return short && !how.phone && !customer?.phone ? new Refusal('customer-without-phone') : null;
}

/** The numbers in the order of the invoices: as typed, else the next of the series that no typed one has taken before. */
async function numbersFor(tx: Tx, business: Business, ready: readonly Ready[], today: CalendarDate): Promise<string[]> {
  const numbers = ready.map(({ one }) => one.paper.number.trim());
  const all = numbers.some((number) => !number) ? await numberSeries(tx) : [];
  const bySeries = new Map<string, number[]>();
  for (const [at, { one }] of ready.entries()) {
    if (numbers[at]) continue;
    const key = counterKey(seriesFor(all, business, one.paper), issueDate(one.paper, today));
    bySeries.set(key, [...(bySeries.get(key) ?? []), at]);
  }
  for (const [key, places] of bySeries) {
    let waiting = places;
    while (waiting.length > 0) {
      const first = await takeNumbers(tx, key, waiting.length);
      const next = waiting.map((at, nth) => {
        const { paper } = ready[at]?.one ?? {};
        return paper ? numberText(seriesFor(all, business, paper), first + BigInt(nth), issueDate(paper, today)) : '';
      });
      const taken = await numbersTaken(tx, next);
      const free = next.filter((number) => !taken.has(number) && !numbers.includes(number));
      for (const [nth, number] of free.entries()) numbers[waiting[nth] ?? 0] = number;
      waiting = waiting.slice(free.length);
    }
  }
  return numbers;
}

type Issued = Ready & { readonly invoice: IssuedInvoice };

/** Writes down all that follows from being issued. */
async function writeIssued(tx: Writing, business: Business, issued: readonly Issued[]): Promise<void> {
  if (issued.length === 0) return;
  const fresh = issued.flatMap(({ one, invoice }) =>
    one.fresh ? [{ ...invoice, paper: one.paper, linkToken: one.fresh.linkToken, origin: one.fresh.origin }] : [],
  );
  const kept = issued.flatMap(({ one, invoice }) => (one.fresh ? [] : [invoice]));
  if (fresh.length > 0) await insertSent(tx, fresh);
  if (kept.length > 0) await updateSent(tx, kept);
  const today = dateInZone(tx.now, business.zone);
  await insertEntries(
    tx,
    issued.map(({ one: { broughtIn }, invoice: { id, number, printed, totalMinor, taxMinor } }) => ({
      entry: broughtIn
        ? invoiceBroughtIn(today, number, money(totalMinor, printed.currency))
        : invoiceSent(printed.issuedOn, number, money(totalMinor, printed.currency), taxMinor),
      booking: { id: randomUUID(), cause: `invoice-sent:${id}`, invoiceId: id, paymentId: null },
    })),
  );
  await promise(
    tx,
    issued.flatMap(({ one, reading }) => promisedBy(one.id, reading)),
  );
  await handOverInvoices(
    tx,
    issued
      .filter(({ one }) => !one.broughtIn)
      .map(({ one: { id, paper, customer }, invoice: { printed, totalMinor } }) => ({
        id,
        paper,
        customer,
        printed,
        totalMinor,
      })),
  );
  await insertReminders(
    tx,
    issued.flatMap(({ one: { id, paper }, invoice }) =>
      reminderDays(paper.reminders ?? business.reminders, invoice.printed.dueOn, today).map((day) => ({
        ...day,
        invoiceId: id,
      })),
    ),
  );
  await addLines(
    tx,
    issued.flatMap(({ one: { id, how, byName, fresh: made }, invoice }) => [
      ...(made
        ? [{ of: { invoiceId: id }, event: { kind: 'made', by: made.made.by } as const, byName: made.made.byName }]
        : []),
      { of: { invoiceId: id }, event: { kind: 'sent', number: invoice.number, way: how.way }, byName },
    ]),
  );
  await queueMessages(
    tx,
    issued.flatMap(({ one: { id, how, customer }, invoice: { printed } }) => [
      ...invoiceMessages({ id, printed }, customer, { how, key: `invoice:${id}` }),
      ...approvalMessages(id, printed),
    ]),
  );
}

/** What an invoice promises of the stock, by what was read on its paper. */
export const promisedBy = (invoiceId: string, reading: PaperReading): StockPromise[] =>
  reading.counted.flatMap(({ itemId, optionId = null }, at) => {
    const quantity = reading.document.lines[at]?.quantity;
    return itemId && quantity ? [{ invoiceId, itemId, optionId, quantity }] : [];
  });

import { type Business, isQuiet } from '@/core/business/business';
import { type CalendarDate, daysBetween } from '@/core/dates/calendar-date';
import { clockTime } from '@/core/dates/date-text';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import type { PrintedInvoice } from '@/core/invoice/printed';
import { remindedTogether } from '@/core/invoice/reminders';
import { type SendWith, sendBy } from '@/core/invoice/send-with';
import { businessById } from '@/db/businesses';
import { customerById, customersByIds } from '@/db/customers';
import { type Invoice, invoicesByIds, lockedInvoice } from '@/db/invoices';
import { lastReminded } from '@/db/messages';
import type { Tx } from '@/db/pool';
import { claimOthers, claimReminders, postponeReminders, updateReminders } from '@/db/reminders';
import { addLines, addToTimeline } from '@/db/timeline';
import { type Context, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessages } from '@/flows/message/queue-message';
import { invoiceMessages, queueInvoice } from './invoice-message';
import { sent } from './sent-invoice';

const AT_ONCE = 250;

/**
 * Reminds the customer now.
 *
 * @param requestKey one press, one reminder
 * @throws Refusal `already-paid`, `already-cancelled`, `customer-without-email`, `customer-without-phone`
 */
export const remindNow = desk('ask').write(
  async (tx, id: string, requestKey: string, how: SendWith = sendBy('mail')): Promise<void> => {
    const invoice = sent(found(await lockedInvoice(tx, id)));
    if (invoice.dueMinor === 0n) throw new Refusal('already-paid');
    await queueReminder(tx, invoice, { key: `reminder:${id}:${requestKey}`, how });
  },
);

/**
 * Reminds of several invoices now, each customer in one mail.
 *
 * @param requestKey one press, one reminder
 * @returns those that cannot be reminded of, with the reason
 */
export const remindTogether = desk('ask').write(
  async (tx, ids: readonly string[], requestKey: string): Promise<{ id: string; words: string }[]> => {
    const refused: { id: string; words: string }[] = [];
    const asked: Reminded[] = [];
    const business = await businessById(tx);
    const invoices = new Map((await invoicesByIds(tx, ids, true)).map((one) => [one.id, one]));
    for (const id of ids) {
      try {
        const invoice = sent(found(invoices.get(id)));
        if (invoice.dueMinor === 0n) throw new Refusal('already-paid');
        const address = found(invoice.printed).payer.email;
        if (!address) throw new Refusal('customer-without-email');
        asked.push({ ...remindedOf(invoice, address), offset: daysLate(tx, business, invoice) });
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        refused.push({ id, words: error.words });
      }
    }
    const isNew = await queueGroups(tx, asked, ({ invoice }) => `reminder:${invoice.id}:${requestKey}`);
    if (isNew) await tellReminded(tx, asked, tx.name);
    return refused;
  },
);

/** An invoice of which its customer is reminded, by its days from the due date. */
type Reminded = {
  readonly invoice: Invoice;
  readonly printed: PrintedInvoice;
  readonly customerId: string;
  readonly address: string;
  readonly sender: string;
  readonly dueOn: CalendarDate;
  readonly offset: number;
};

const remindedOf = (invoice: Invoice, address: string): Omit<Reminded, 'offset'> => {
  const printed = found(invoice.printed);
  return {
    invoice,
    printed,
    customerId: invoice.customerId ?? '',
    address,
    sender: printed.seller.name,
    dueOn: printed.dueOn,
  };
};

const daysLate = (tx: Tx, business: Business, { printed }: Invoice): number =>
  daysBetween(found(printed).dueOn, dateInZone(tx.now, business.zone));

/** Queues them, one mail for each customer and address; false if all their keys came before. */
async function queueGroups(
  tx: Tx,
  reminded: readonly Reminded[],
  keyOf: (first: Reminded) => string,
): Promise<boolean> {
  const customers = new Map(
    (
      await customersByIds(
        tx,
        reminded.flatMap(({ customerId }) => customerId || []),
      )
    ).map((one) => [one.id, one]),
  );
  const fresh = await queueMessages(
    tx,
    remindedTogether(reminded).flatMap(([first, ...others]) =>
      first
        ? invoiceMessages({ id: first.invoice.id, printed: first.printed }, customers.get(first.customerId) ?? null, {
            how: sendBy('mail'),
            key: keyOf(first),
            kind: 'reminder',
            offset: first.offset,
            others: others.map(({ invoice }) => invoice.id),
          })
        : [],
    ),
  );
  return fresh > 0;
}

const tellReminded = (tx: Tx, reminded: readonly Reminded[], byName: string): Promise<void> =>
  addLines(
    tx,
    reminded.map(({ invoice, address }) => ({
      of: { invoiceId: invoice.id },
      event: { kind: 'reminded', to: address },
      byName,
    })),
  );

/** Queues a reminder, with its days from the due date, and tells the timeline; the same press twice does it once. */
async function queueReminder(
  tx: Writing,
  invoice: Invoice,
  { key, how }: { readonly key: string; readonly how: SendWith },
): Promise<void> {
  const business = await businessById(tx);
  const printed = found(invoice.printed);
  const customer = await customerById(tx, invoice.customerId ?? '');
  const to = how.way === 'mail' ? (how.to[0] ?? printed.payer.email) : how.phone || customer?.phone || '';
  if (!to) throw new Refusal(how.way === 'mail' ? 'customer-without-email' : 'customer-without-phone');
  const offset = daysLate(tx, business, invoice);
  const isNew = await queueInvoice(tx, { id: invoice.id, printed }, customer, { how, key, kind: 'reminder', offset });
  if (isNew) await addToTimeline(tx, invoice.id, { kind: 'reminded', to }, tx.name);
}

/**
 * Sends the reminders whose day has come, outside the quiet hours. Of several that are due for one invoice the latest goes out, and
 * what goes to one customer is one mail.
 */
export async function remindDue(ctx: Context): Promise<number> {
  for (let sent = 0; ; ) {
    const done = await ctx.sets(remindSome);
    if (!done || done.claimed === 0) return sent;
    sent += done.sent;
  }
}

/** The next reminders that are due; null in the quiet hours. */
async function remindSome(tx: Tx): Promise<{ claimed: number; sent: number } | null> {
  const business = await businessById(tx);
  if (isQuiet(business, clockTime(tx.now, business.zone))) return null;
  const today = dateInZone(tx.now, business.zone);
  await postponeReminders(tx, today, business.zone);
  const some = await claimReminders(tx, today, AT_ONCE);
  if (some.length === 0) return { claimed: 0, sent: 0 };
  const others = await claimOthers(
    tx,
    today,
    some.map(({ invoiceId }) => invoiceId),
  );
  const keyOf = ({ invoiceId, offset }: { invoiceId: string; offset: number }) => `${invoiceId} ${offset}`;
  const due = [...new Map([...some, ...others].map((one) => [keyOf(one), one])).values()];
  const latest = new Map<string, number>();
  for (const { invoiceId, offset } of due)
    latest.set(invoiceId, Math.max(offset, latest.get(invoiceId) ?? Number.NEGATIVE_INFINITY));
  const invoices = new Map((await invoicesByIds(tx, [...latest.keys()], true)).map((one) => [one.id, one]));
  // Somebody was quicker today, by hand: once a day is enough.
  const already = await lastReminded(tx, [...latest.keys()], instantInZone(today, '00:00', business.zone));
  const going = due.flatMap(({ invoiceId, offset }): Reminded[] => {
    const invoice = found(invoices.get(invoiceId));
    const open = invoice.stage === 'sent' && invoice.dueMinor > 0n && latest.get(invoiceId) === offset;
    const address = invoice.printed?.payer.email ?? '';
    return open && address && !already.has(invoiceId) ? [{ ...remindedOf(invoice, address), offset }] : [];
  });
  const goes = new Set(going.map(({ invoice, offset }) => keyOf({ invoiceId: invoice.id, offset })));
  await updateReminders(
    tx,
    due.map((one) => ({ ...one, state: goes.has(keyOf(one)) ? 'sent' : 'dropped' })),
  );
  await queueGroups(tx, going, ({ invoice, offset }) => `reminder:${invoice.id}:${offset}`);
  await tellReminded(tx, going, 'Dahlia');
  return { claimed: due.length, sent: going.length };
}

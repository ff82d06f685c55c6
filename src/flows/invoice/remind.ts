import { isQuiet } from '@/core/business/business';
import { clockTime } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { type SendWith, sendBy } from '@/core/invoice/send-with';
import { businessById } from '@/db/businesses';
import { customerById, customersByIds } from '@/db/customers';
import { type Invoice, invoicesByIds, lockedInvoice } from '@/db/invoices';
import type { Tx } from '@/db/pool';
import { claimReminders, updateReminders } from '@/db/reminders';
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

/** Queues a reminder, with its days from the due date, and tells the timeline. */
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
  const days = Math.round((Date.parse(dateInZone(tx.now, business.zone)) - Date.parse(printed.dueOn)) / 86_400_000);
  await queueInvoice(tx, { id: invoice.id, printed }, customer, { how, key, kind: 'reminder', offset: days });
  await addToTimeline(tx, invoice.id, { kind: 'reminded', to }, tx.name);
}

/** Sends the reminders whose day has come, outside the quiet hours. Of several that are due for one invoice the latest goes out. */
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
  const due = await claimReminders(tx, dateInZone(tx.now, business.zone), AT_ONCE);
  if (due.length === 0) return { claimed: 0, sent: 0 };
  const latest = new Map(due.map(({ invoiceId, offset }) => [invoiceId, offset]));
  const invoices = new Map((await invoicesByIds(tx, [...latest.keys()], true)).map((one) => [one.id, one]));
  const customers = new Map(
    (
      await customersByIds(
        tx,
        [...invoices.values()].flatMap(({ customerId }) => customerId ?? []),
      )
    ).map((one) => [one.id, one]),
  );
  const going = due.flatMap(({ invoiceId, offset }) => {
    const { stage, dueMinor, printed, customerId } = found(invoices.get(invoiceId));
    const open = stage === 'sent' && dueMinor > 0n && latest.get(invoiceId) === offset;
    if (!open || found(printed).payer.email === '') return [];
    return [{ invoiceId, offset, printed: found(printed), customer: customers.get(customerId ?? '') ?? null }];
  });
  const goes = new Set(going.map(({ invoiceId, offset }) => `${invoiceId} ${offset}`));
  await updateReminders(
    tx,
    due.map((one) => ({ ...one, state: goes.has(`${one.invoiceId} ${one.offset}`) ? 'sent' : 'dropped' })),
  );
  await queueMessages(
    tx,
    going.flatMap(({ invoiceId, offset, printed, customer }) =>
      invoiceMessages({ id: invoiceId, printed }, customer, {
        how: sendBy('mail'),
        key: `reminder:${invoiceId}:${offset}`,
        kind: 'reminder',
        offset,
      }),
    ),
  );
  await addLines(
    tx,
    going.map(({ invoiceId, printed }) => ({
      of: { invoiceId },
      event: { kind: 'reminded', to: printed.payer.email },
      byName: 'Dahlia',
    })),
  );
  return { claimed: due.length, sent: going.length };
}

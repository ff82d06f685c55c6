import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import type { Paper } from '@/core/invoice/paper';
import { type PrintedInvoice, printedInvoice } from '@/core/invoice/printed';
import { reminderDays } from '@/core/invoice/reminders';
import { sendBy } from '@/core/invoice/send-with';
import { sendingProblems } from '@/core/invoice/sending';
import { invoiceChanged } from '@/core/ledger/movements';
import { money, wireMinor } from '@/core/money/money';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { insertVersion, lockedInvoice, updateChanged } from '@/db/invoices';
import { announce } from '@/db/jobs';
import { insertEntry } from '@/db/ledger';
import { heldByPending } from '@/db/payments';
import type { Actor } from '@/db/people';
import { replaceReminders } from '@/db/reminders';
import { insertHappening } from '@/db/timeline';
import { inBusinessInTurn } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { headingOf, readingOf } from './paper-setting';
import { Refusal } from './refusal';
import { queueInvoice } from './send-invoice';

/**
 * Gives a sent invoice a new version: number, customer, currency and day of issue stay, what it says and asks for may change;
 * what was paid stays paid, the books take the difference, and the customer is told if wanted.
 *
 * @param version what the person saw; one changed elsewhere since is not changed again
 * @throws Refusal `paper-not-ready` (also where less would be asked for than was paid), `draft-changed-elsewhere`
 */
export async function changeInvoice(
  actor: Actor,
  id: string,
  paper: Paper,
  version: number,
  tell: boolean,
): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const { businessId } = actor;
  await inBusinessInTurn(businessId, async (tx) => {
    const invoice = found(await lockedInvoice(tx, businessId, id));
    if (invoice.stage !== 'sent') throw new Refusal('invoice-not-sent');
    if (invoice.version !== version) throw new Refusal('draft-changed-elsewhere');
    if ((await heldByPending(tx, businessId, id)) > 0n) throw new Refusal('payment-under-way');
    const before = found(invoice.printed);
    const business = await businessById(tx, businessId);
    const today = dateInZone(now, business.zone);
    const kept: Paper = {
      ...paper,
      customerId: invoice.customerId,
      number: before.number,
      issuedOn: before.issuedOn,
      currency: before.currency,
    };
    const customer = found(await customerById(tx, businessId, invoice.customerId ?? ''));
    const reading = await readingOf(tx, business, customer, kept);
    // A due date that has passed meanwhile is no fault of the change.
    const problems = sendingProblems(kept, reading, before.issuedOn);
    const { total, taxTotal } = reading.tally;
    if (total < invoice.paidMinor - invoice.refundedMinor || total < invoice.creditedMinor)
      problems.push({
        field: 'lines',
        words: 'More has been paid or credited than this comes to. Write a credit note instead.',
      });
    if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
    const heading = await headingOf(tx, business, customer, kept, before.number, today);
    const printed: PrintedInvoice = {
      ...printedInvoice(kept, reading, heading),
      issuedOn: before.issuedOn,
      version: before.version + 1,
      changedOn: today,
    };
    await insertVersion(tx, businessId, id, before, actor.name, now);
    await updateChanged(tx, businessId, id, { paper: kept, printed, totalMinor: total, taxMinor: taxTotal }, now);
    const more = total - invoice.totalMinor;
    const moreTax = taxTotal - BigInt(before.taxTotal);
    if (more !== 0n || moreTax !== 0n) {
      await insertEntry(
        tx,
        businessId,
        invoiceChanged(today, printed.number, money(more, printed.currency), moreTax),
        { id: randomUUID(), cause: `invoice-changed:${id}:${printed.version}`, invoiceId: id, paymentId: null },
        now,
      );
    }
    const offsets = kept.reminders ?? business.reminders;
    await replaceReminders(tx, businessId, id, reminderDays(offsets, printed.dueOn, today));
    const sums = { from: before.total, to: wireMinor(total) };
    await insertHappening(tx, businessId, id, { kind: 'changed', version: printed.version, ...sums }, actor.name, now);
    if (tell && printed.payer.email) {
      const key = `changed:${id}:${printed.version}`;
      await queueInvoice(tx, business, id, printed, customer, sendBy('mail'), key, now, 'changed');
    }
    await announce(tx, businessId);
  });
}

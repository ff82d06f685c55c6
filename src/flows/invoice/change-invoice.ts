import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { type PrintedInvoice, printedInvoice } from '@/core/invoice/printed';
import { reminderDays } from '@/core/invoice/reminders';
import { sendBy } from '@/core/invoice/send-with';
import { sendingProblems } from '@/core/invoice/sending';
import { invoiceChanged } from '@/core/ledger/movements';
import { jsonMinor, money } from '@/core/money/money';
import type { Paper } from '@/core/paper/paper';
import { isSameDocument } from '@/core/refund/printed-document';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { insertVersion, lockedInvoice, updateChanged } from '@/db/invoices';
import { insertEntry } from '@/db/ledger';
import { heldByPending } from '@/db/payments';
import { replaceReminders } from '@/db/reminders';
import { addToTimeline } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessages } from '@/flows/message/queue-message';
import { approvalMessages } from './approvers';
import { queueInvoice } from './invoice-message';
import { headingOf, readingOf } from './paper-setting';
import { sent } from './sent-invoice';

/**
 * Gives a sent invoice a new version: number, customer, currency and day of issue stay, what it says and asks for may change;
 * what was paid stays paid, the books take the difference, and the customer is told if wanted.
 *
 * @param version what the person saw; one changed elsewhere since is not changed again
 * @throws Refusal `paper-not-ready` (also where less would be asked for than was paid), `draft-changed-elsewhere`
 */
export const changeInvoice = desk('ask').turn(
  async (tx, id: string, paper: Paper, version: number, tell: boolean): Promise<void> => {
    const invoice = sent(found(await lockedInvoice(tx, id)));
    if (invoice.version !== version) throw new Refusal('draft-changed-elsewhere');
    if ((await heldByPending(tx, id)) > 0n) throw new Refusal('payment-under-way');
    const before = found(invoice.printed);
    const business = await businessById(tx);
    const today = dateInZone(tx.now, business.zone);
    const kept: Paper = {
      ...paper,
      customerId: invoice.customerId,
      number: before.number,
      issuedOn: before.issuedOn,
      currency: before.currency,
    };
    const customer = found(await customerById(tx, invoice.customerId ?? ''));
    const reading = await readingOf(tx, business, customer, kept);
    // A due date that has passed meanwhile is no fault of the change.
    const problems = sendingProblems(kept, reading, before.issuedOn);
    const { total, taxTotal } = reading.tally;
    if (total < invoice.paidMinor - invoice.refundedMinor)
      problems.push({
        field: 'lines',
        words: 'More has been paid than this comes to. Write a credit note instead.',
      });
    if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
    const heading = { ...(await headingOf(tx, business, customer, kept)), number: before.number };
    const printed: PrintedInvoice = {
      ...printedInvoice(kept, reading, heading),
      issuedOn: before.issuedOn,
      version: before.version + 1,
      changedOn: today,
    };
    if (invoice.creditedMinor > 0n && !isSameDocument(before, printed))
      throw new Refusal('paper-not-ready', [
        {
          field: 'lines',
          words:
            'A credit note has been written of it, so its lines and sums stay. Credit the rest and write a new invoice.',
        },
      ]);
    await insertVersion(tx, id, before, tx.name);
    await updateChanged(tx, id, { paper: kept, printed, totalMinor: total, taxMinor: taxTotal });
    const more = total - invoice.totalMinor;
    const moreTax = taxTotal - BigInt(before.taxTotal);
    if (more !== 0n || moreTax !== 0n) {
      await insertEntry(tx, invoiceChanged(today, printed.number, money(more, printed.currency), moreTax), {
        id: randomUUID(),
        cause: `invoice-changed:${id}:${printed.version}`,
        invoiceId: id,
        paymentId: null,
      });
    }
    const offsets = kept.reminders ?? business.reminders;
    await replaceReminders(tx, id, reminderDays(offsets, printed.dueOn, today));
    const sums = { from: before.total, to: jsonMinor(total) };
    await addToTimeline(tx, id, { kind: 'changed', version: printed.version, ...sums }, tx.name);
    // Whoever is asked to approve only now; the others have their links.
    await queueMessages(tx, approvalMessages(id, printed));
    if (tell && printed.payer.email) {
      const key = `changed:${id}:${printed.version}`;
      await queueInvoice(tx, { id, printed }, customer, { how: sendBy('mail'), key, kind: 'changed' });
    }
  },
);

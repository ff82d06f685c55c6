import { isQuiet } from '@/core/business/business';
import { clockTime } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { sendBy } from '@/core/invoice/send-with';
import { businessById, businessesWithWork } from '@/db/businesses';
import { claimScheduled, lockedInvoice, updateSendAt } from '@/db/invoices';
import { announce } from '@/db/jobs';
import { personById } from '@/db/people';
import { claimReminders, updateReminder } from '@/db/reminders';
import { insertHappening } from '@/db/timeline';
import { inBusiness, inBusinessInTurn, outsideBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found } from './access';
import { closeAllDays } from './close-days';
import { queueReminder } from './follow-invoice';
import { planMinute } from './plans/plan-minute';
import { Refusal } from './refusal';
import { makeDueRepeats } from './repeats';
import { sendInTurn } from './send-invoice';

const AT_ONCE = 50;

/**
 * What the clock brings: drafts to be sent, invoices that come again, reminders, what plans need, and the closing of days. Each is done in the transaction that marks
 * it done, so that it happens once, whatever is killed and however often this runs.
 *
 * @param onTrouble hears of a business whose work failed; the others go on
 */
export async function everyMinute(onTrouble: (businessId: string, error: unknown) => void): Promise<void> {
  const now = await services().clock.now();
  for (const businessId of await outsideBusiness((db) => businessesWithWork(db, now))) {
    try {
      await sendScheduled(businessId, now);
      await makeDueRepeats(businessId, now);
      await remindDue(businessId, now);
      await planMinute(businessId, now);
    } catch (error) {
      onTrouble(businessId, error);
    }
  }
  await closeAllDays(now, onTrouble);
}

/** Sends the drafts whose time has come; one that can no longer be sent stays a draft, and its timeline says why. */
export async function sendScheduled(businessId: string, now: Date): Promise<void> {
  for (;;) {
    const done = await inBusinessInTurn(businessId, async (tx) => {
      const [claimed] = await claimScheduled(tx, businessId, now, 1);
      return claimed?.id ?? null;
    });
    if (done === null) return;
    await sendOneScheduled(businessId, done, now);
  }
}

async function sendOneScheduled(businessId: string, id: string, now: Date): Promise<void> {
  try {
    await inBusinessInTurn(businessId, async (tx) => {
      const draft = await lockedInvoice(tx, businessId, id);
      if (draft?.stage !== 'draft' || !draft.sendAt || draft.sendAt > now) return;
      const business = await businessById(tx, businessId);
      const person = await personById(tx, businessId, draft.sendBy ?? '');
      const actor = { businessId, name: person?.name ?? 'Dahlia' };
      await sendInTurn(tx, actor, business, draft, draft.sendWith ?? sendBy('mail'), now);
      await announce(tx, businessId);
    });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const why = error.fields[0]?.words ?? error.words;
    await inBusiness(businessId, async (tx) => {
      await updateSendAt(tx, businessId, id, null);
      await insertHappening(tx, businessId, id, { kind: 'plan-dropped', why }, 'Dahlia', now);
      await announce(tx, businessId);
    });
  }
}

/** Sends the reminders whose day has come, outside the quiet hours. Of several that are due for one invoice the latest goes out. */
export async function remindDue(businessId: string, now: Date): Promise<number> {
  let sent = 0;
  for (;;) {
    const worked = await inBusiness(businessId, async (tx) => {
      const business = await businessById(tx, businessId);
      if (isQuiet(business, clockTime(now, business.zone))) return null;
      const due = await claimReminders(tx, businessId, dateInZone(now, business.zone), AT_ONCE);
      const latest = new Map(due.map(({ invoiceId, offset }) => [invoiceId, offset]));
      let out = 0;
      for (const { invoiceId, offset } of due) {
        const invoice = found(await lockedInvoice(tx, businessId, invoiceId));
        const open = invoice.stage === 'sent' && invoice.dueMinor > 0n;
        const goes = open && latest.get(invoiceId) === offset && found(invoice.printed).payer.email !== '';
        await updateReminder(tx, businessId, invoiceId, offset, goes ? 'sent' : 'dropped', now);
        if (!goes) continue;
        const key = `reminder:${invoiceId}:${offset}`;
        await queueReminder(tx, businessId, invoice, key, sendBy('mail'), 'Dahlia', now, offset);
        out += 1;
      }
      if (due.length > 0) await announce(tx, businessId);
      return { claimed: due.length, out };
    });
    if (!worked || worked.claimed === 0) return sent;
    sent += worked.out;
  }
}

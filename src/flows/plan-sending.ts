import { isCalendarDate } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import type { SendWith } from '@/core/invoice/send-with';
import { sendingProblems } from '@/core/invoice/sending';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { lockedInvoice, updateSendAt } from '@/db/invoices';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { insertHappening } from '@/db/timeline';
import { inBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { readingOf } from './paper-setting';
import { Refusal } from './refusal';

/**
 * Sets a draft to go out by itself. It is checked now as it would be on that day; any later change takes the plan away.
 *
 * @param on day and time of the business's zone, `YYYY-MM-DDTHH:MM`
 * @throws Refusal `paper-not-ready`, `draft-changed-elsewhere`, `draft-already-sent`
 */
export async function planSending(
  actor: Actor,
  id: string,
  revision: number,
  how: SendWith,
  on: string,
): Promise<{ sendAt: Date }> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const [day = '', time = ''] = on.split('T');
  return inBusiness(actor.businessId, async (tx) => {
    const draft = found(await lockedInvoice(tx, actor.businessId, id));
    if (draft.stage !== 'draft') throw new Refusal('draft-already-sent');
    if (draft.revision !== revision) throw new Refusal('draft-changed-elsewhere');
    const business = await businessById(tx, actor.businessId);
    const customer = draft.paper.customerId ? await customerById(tx, actor.businessId, draft.paper.customerId) : null;
    if (!isCalendarDate(day) || !/^([01]\d|2[0-3]):[0-5]\d/.test(time))
      throw new Refusal('paper-not-ready', [{ field: 'on', words: 'Choose a day and a time to send it.' }]);
    const sendAt = instantInZone(day, time.slice(0, 5), business.zone);
    const problems = sendingProblems(draft.paper, await readingOf(tx, business, customer, draft.paper), day);
    if (sendAt <= now) problems.push({ field: 'on', words: 'Choose a time to come.' });
    if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
    if (how.way === 'mail' && how.to.length === 0 && !customer?.email) throw new Refusal('customer-without-email');
    await updateSendAt(tx, actor.businessId, id, { at: sendAt, how, personId: actor.personId });
    const words = `${longDate(dateInZone(sendAt, business.zone), business.locale)}, ${time.slice(0, 5)}`;
    await insertHappening(tx, actor.businessId, id, { kind: 'planned', on: words }, actor.name, now);
    await announce(tx, actor.businessId);
    return { sendAt };
  });
}

/** Takes the plan away: the draft stays, and nothing goes out by itself. */
export async function dropPlan(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const draft = found(await lockedInvoice(tx, actor.businessId, id));
    if (draft.stage !== 'draft' || !draft.sendAt) return;
    await updateSendAt(tx, actor.businessId, id, null);
    await insertHappening(tx, actor.businessId, id, { kind: 'plan-dropped', why: 'Taken back' }, actor.name, now);
    await announce(tx, actor.businessId);
  });
}

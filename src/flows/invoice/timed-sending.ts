import { isCalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import type { SendWith } from '@/core/invoice/send-with';
import { sendBy } from '@/core/invoice/send-with';
import { sendingProblems } from '@/core/invoice/sending';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { claimScheduled, lockedInvoice, updateSendAt } from '@/db/invoices';
import { personById } from '@/db/people';
import { addToTimeline } from '@/db/timeline';
import { requireSending } from '@/flows/door/opening';
import { type Context, desk, inNameOf } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { issueDraft } from './issue-invoices';
import { readingOf } from './paper-setting';

/**
 * Sets a draft to go out by itself. It is checked now as it would be on that day; any later change takes the time away.
 *
 * @param on day and time of the business's zone, `YYYY-MM-DDTHH:MM`
 * @throws Refusal `mail-not-confirmed`, `paper-not-ready`, `draft-changed-elsewhere`, `draft-already-sent`
 */
export const setSendingTime = desk('ask').run(
  async (
    ctx,
    id: string,
    { revision, how, on }: { readonly revision: number; readonly how: SendWith; readonly on: string },
  ): Promise<{ sendAt: Date }> => {
    const [day = '', time = ''] = on.split('T');
    return ctx.write(async (tx) => {
      const draft = found(await lockedInvoice(tx, id));
      if (draft.stage !== 'draft') throw new Refusal('draft-already-sent');
      if (draft.revision !== revision) throw new Refusal('draft-changed-elsewhere');
      const business = await businessById(tx);
      await requireSending(tx, business);
      const customer = draft.paper.customerId ? await customerById(tx, draft.paper.customerId) : null;
      if (!isCalendarDate(day) || !/^([01]\d|2[0-3]):[0-5]\d/.test(time))
        throw new Refusal('paper-not-ready', [{ field: 'on', words: 'Choose a day and a time to send it.' }]);
      const sendAt = instantInZone(day, time.slice(0, 5), business.zone);
      const problems = sendingProblems(draft.paper, await readingOf(tx, business, customer, draft.paper), day);
      if (sendAt <= ctx.now) problems.push({ field: 'on', words: 'Choose a time to come.' });
      if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
      if (how.way === 'mail' && how.to.length === 0 && !customer?.email) throw new Refusal('customer-without-email');
      await updateSendAt(tx, id, { at: sendAt, how, personId: ctx.personId });
      await addToTimeline(tx, id, { kind: 'timed', at: sendAt.toISOString() }, ctx.name);
      return { sendAt };
    });
  },
);

/** Takes the time away: the draft stays, and nothing goes out by itself. */
export const dropSendingTime = desk('ask').write(async (tx, id: string): Promise<void> => {
  const draft = found(await lockedInvoice(tx, id));
  if (draft.stage !== 'draft' || !draft.sendAt) return;
  await updateSendAt(tx, id, null);
  await addToTimeline(tx, id, { kind: 'timed-dropped' }, tx.name);
});

/** Sends the drafts whose time has come; one that can no longer be sent stays a draft, and its timeline says why. */
export async function sendScheduled(ctx: Context): Promise<void> {
  for (;;) {
    const done = await ctx.turn(async (tx) => {
      const [claimed] = await claimScheduled(tx, ctx.now, 1);
      return claimed?.id ?? null;
    });
    if (done === null) return;
    await sendOneScheduled(ctx, done);
  }
}

async function sendOneScheduled(ctx: Context, id: string): Promise<void> {
  try {
    await ctx.turn(async (tx) => {
      const draft = await lockedInvoice(tx, id);
      if (draft?.stage !== 'draft' || !draft.sendAt || draft.sendAt > ctx.now) return;
      const business = await businessById(tx);
      const person = await personById(tx, draft.sendBy ?? '');
      await issueDraft(inNameOf(tx, person?.name ?? 'Dahlia'), business, draft, draft.sendWith ?? sendBy('mail'));
    });
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const [problem] = error.fields;
    const event = {
      kind: 'not-sent-in-time',
      why: error.code,
      ...(problem ? { problem: problem.words } : {}),
    } as const;
    await ctx.write(async (tx) => {
      await updateSendAt(tx, id, null);
      await addToTimeline(tx, id, event, 'Dahlia');
    });
  }
}

import { randomUUID } from 'node:crypto';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { filledPaper, freshPaper } from '@/core/invoice/placeholders';
import { comingDates, type Pauses } from '@/core/invoice/recurring';
import { sendBy } from '@/core/invoice/send-with';
import { RuleError } from '@/core/rule-error';
import type { Schedule, ScheduledDate } from '@/core/schedule/schedule';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { personById } from '@/db/people';
import type { Tx } from '@/db/pool';
import {
  claimRecurring,
  insertRecurring,
  insertRun,
  type RecurringInvoice,
  type RecurringRun,
  recurringById,
  recurringOf,
  runsOf,
  updateRecurring,
} from '@/db/recurring';
import { inSavepoint } from '@/db/savepoint';
import { addToTimeline } from '@/db/timeline';
import { type Context, desk, inNameOf, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { writeDraft } from './draft';
import { issueDraft } from './issue-invoices';
import { localeOf } from './paper-setting';

export type { RecurringInvoice, RecurringRun };

/** What a person says of a recurring invoice. */
export type RecurringPlan = { readonly name: string; readonly schedule: Schedule; readonly makes: 'draft' | 'send' };

const FAR = 400;
const SHOWN = 12;

/** The next date after one, or null where there is none (any more). @throws Refusal `no-dates` for a schedule that is none */
function next(schedule: Schedule, pauses: Pauses, after: CalendarDate | null): ScheduledDate | null {
  try {
    return comingDates(schedule, pauses, after, 1)[0] ?? null;
  } catch (error) {
    if (error instanceof RuleError) throw new Refusal('no-dates');
    throw error;
  }
}

const nextOf = (date: ScheduledDate | null) => ({ nextNominal: date?.nominal ?? null, nextOn: date?.charged ?? null });

/** Lets an invoice, sent or not, come again by a schedule. Returns the id. @throws Refusal `no-dates`, `not-found` */
export const startRecurring = desk('ask').run(
  async (ctx, invoiceId: string, plan: RecurringPlan, withFiles?: boolean): Promise<string> => {
    const id = randomUUID();
    await ctx.write(async (tx) => {
      const { paper } = found(await invoiceById(tx, invoiceId));
      const customerId = found(paper.customerId);
      const first = next(plan.schedule, [], null);
      if (!first) throw new Refusal('no-dates');
      const repeat: RecurringInvoice = {
        id,
        ...plan,
        customerId,
        paper: freshPaper(paper, randomUUID, withFiles),
        state: 'active',
        pauses: [],
        ...nextOf(first),
        byId: ctx.personId,
      };
      await insertRecurring(tx, repeat);
    });
    return id;
  },
);

async function changeRecurring(
  tx: Tx,
  id: string,
  change: (repeat: RecurringInvoice, today: CalendarDate) => RecurringInvoice,
): Promise<void> {
  const business = await businessById(tx);
  const repeat = found(await recurringById(tx, id, true));
  await updateRecurring(tx, change(repeat, dateInZone(tx.now, business.zone)));
}

/** The day before the next date, so that "after it" finds that date again under another rule. */
const lastDone = (repeat: RecurringInvoice): CalendarDate | null => {
  if (!repeat.nextNominal) return null;
  const before = comingDates(repeat.schedule, [], null, FAR).filter(
    ({ nominal }) => nominal < (repeat.nextNominal ?? ''),
  );
  return before.at(-1)?.nominal ?? null;
};

/** Nothing is made until it is resumed; dates that pass meanwhile are left out. */
export const pauseRecurring = desk('ask').write((tx, id: string) =>
  changeRecurring(tx, id, (repeat) => (repeat.state === 'active' ? { ...repeat, state: 'paused' } : repeat)),
);

/** Goes on with the next date from today on. */
export const resumeRecurring = desk('ask').write((tx, id: string) =>
  changeRecurring(tx, id, (repeat, today) => {
    if (repeat.state !== 'paused') return repeat;
    const from = repeat.nextNominal;
    const pauses = from && from < today ? [...repeat.pauses, { from, to: addDays(today, -1) }] : repeat.pauses;
    const date = next(repeat.schedule, pauses, lastDone(repeat));
    return { ...repeat, pauses, ...nextOf(date), state: date ? 'active' : 'finished' };
  }),
);

/** Leaves the next date out. */
export const skipNext = desk('ask').write((tx, id: string) =>
  changeRecurring(tx, id, (repeat) => {
    const { nextNominal } = repeat;
    if (!nextNominal) return repeat;
    const pauses = [...repeat.pauses, { from: nextNominal, to: nextNominal }];
    const date = next(repeat.schedule, pauses, nextNominal);
    return { ...repeat, pauses, ...nextOf(date), state: date ? repeat.state : 'finished' };
  }),
);

/** Ends it for good; what was made stays. */
export const endRecurring = desk('ask').write((tx, id: string) =>
  changeRecurring(tx, id, (repeat) => ({ ...repeat, state: 'finished', nextNominal: null, nextOn: null })),
);

/** Changes the rule, the name or what is made, from the next one on. @throws Refusal `no-dates` */
export const replanRecurring = desk('ask').write((tx, id: string, plan: RecurringPlan) =>
  changeRecurring(tx, id, (repeat) => {
    const date = next(plan.schedule, repeat.pauses, lastDone(repeat));
    if (!date) throw new Refusal('no-dates');
    return { ...repeat, ...plan, ...nextOf(date), state: repeat.state === 'finished' ? 'active' : repeat.state };
  }),
);

/** Takes what an invoice or draft says as what comes from the next one on. */
export const repaperRecurring = desk('ask').write(async (tx, id: string, invoiceId: string): Promise<void> => {
  const { paper } = found(await invoiceById(tx, invoiceId));
  await changeRecurring(tx, id, (repeat) => ({
    ...repeat,
    // With files only where it had some before: that is what was wanted.
    paper: { ...freshPaper(paper, randomUUID, repeat.paper.files.length > 0), customerId: repeat.customerId },
  }));
});

/** All recurring invoices, with their customers. */
export const recurringList = desk('see').read(async (db): Promise<(RecurringInvoice & { customer: string })[]> => {
  return recurringOf(db);
});

/** A recurring invoice with what it made and what comes. @throws Refusal `not-found` */
export const recurringSheet = desk('see').read(
  async (
    db,
    id: string,
  ): Promise<{ repeat: RecurringInvoice; customer: string; runs: RecurringRun[]; coming: ScheduledDate[] }> => {
    const repeat = found(await recurringById(db, id));
    const coming =
      repeat.state === 'finished' ? [] : comingDates(repeat.schedule, repeat.pauses, lastDone(repeat), SHOWN);
    return {
      repeat,
      customer: found(await customerById(db, repeat.customerId)).name,
      runs: await runsOf(db, id),
      coming,
    };
  },
);

/** Makes what is due of a business's recurring invoices, each date once. */
export async function makeDueRecurring(ctx: Context): Promise<void> {
  for (;;) {
    const made = await ctx.turn(async (tx) => {
      const business = await businessById(tx);
      const [claimed] = await claimRecurring(tx, dateInZone(ctx.now, business.zone), 1);
      if (!claimed) return false;
      await makeOne(tx, found(await recurringById(tx, claimed.id, true)));
      return true;
    });
    if (!made) return;
  }
}

async function makeOne(tx: Writing, repeat: RecurringInvoice): Promise<void> {
  const nominal = found(repeat.nextNominal);
  const business = await businessById(tx);
  const person = await personById(tx, repeat.byId);
  const customer = found(await customerById(tx, repeat.customerId));
  // The placeholders speak of the nominal month, not of the day to which a weekend moved it.
  const paper = freshPaper(filledPaper(repeat.paper, nominal, localeOf(business, customer)), randomUUID, true);
  let trouble: string | null = null;
  const id = await writeDraft(tx, business, { ...paper, customerId: customer.id }, { revision: 1, origin: 'repeat' });
  await addToTimeline(tx, id, { kind: 'made', by: 'repeat' }, repeat.name);
  if (repeat.makes === 'send') {
    const draft = found(await invoiceById(tx, id));
    const refused = await inSavepoint(tx, () =>
      issueDraft(inNameOf(tx, person?.name ?? 'Dahlia'), business, draft, sendBy('mail')),
    ).then(
      () => null,
      (error: unknown) => {
        if (error instanceof Refusal) return error;
        throw error;
      },
    );
    trouble = refused ? (refused.fields[0]?.words ?? refused.words) : null;
  }
  await insertRun(tx, repeat.id, { nominal, invoiceId: id, trouble });
  const date = next(repeat.schedule, repeat.pauses, nominal);
  await updateRecurring(tx, { ...repeat, ...nextOf(date), state: date ? 'active' : 'finished' });
}

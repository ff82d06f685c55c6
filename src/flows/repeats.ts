import { randomUUID } from 'node:crypto';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { filledPaper, freshPaper } from '@/core/invoice/placeholders';
import { comingDates, type Pauses } from '@/core/invoice/repeat';
import { sendBy } from '@/core/invoice/send-with';
import type { Schedule, ScheduledDate } from '@/core/plan/schedule';
import { RuleError } from '@/core/rule-error';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { announce } from '@/db/jobs';
import { type Actor, personById } from '@/db/people';
import type { Tx } from '@/db/pool';
import {
  claimRepeats,
  insertRepeat,
  insertRun,
  type Repeat,
  type RepeatRun,
  repeatById,
  repeatsOf,
  runsOf,
  updateRepeat,
} from '@/db/repeats';
import { insertHappening } from '@/db/timeline';
import { inBusiness, inBusinessInTurn, inSavepoint, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { writeDraft } from './draft';
import { localeOf } from './paper-setting';
import { Refusal } from './refusal';
import { sendInTurn } from './send-invoice';

export type { Repeat, RepeatRun };

/** What a person says of a repeat. */
export type RepeatPlan = { readonly name: string; readonly schedule: Schedule; readonly makes: 'draft' | 'send' };

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

/** Lets an invoice, sent or not, come again by a schedule. Returns the repeat's id. @throws Refusal `no-dates`, `not-found` */
export async function startRepeat(actor: Actor, invoiceId: string, plan: RepeatPlan): Promise<string> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const id = randomUUID();
  await inBusiness(actor.businessId, async (tx) => {
    const { paper } = found(await invoiceById(tx, actor.businessId, invoiceId));
    const customerId = found(paper.customerId);
    const first = next(plan.schedule, [], null);
    if (!first) throw new Refusal('no-dates');
    const repeat: Repeat = {
      id,
      ...plan,
      customerId,
      paper: freshPaper(paper, randomUUID),
      state: 'active',
      pauses: [],
      ...nextOf(first),
      byId: actor.personId,
    };
    await insertRepeat(tx, actor.businessId, repeat, now);
    await announce(tx, actor.businessId);
  });
  return id;
}

async function changeRepeat(
  actor: Actor,
  id: string,
  change: (repeat: Repeat, today: CalendarDate) => Repeat,
): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const business = await businessById(tx, actor.businessId);
    const repeat = found(await repeatById(tx, actor.businessId, id, true));
    await updateRepeat(tx, actor.businessId, change(repeat, dateInZone(now, business.zone)), now);
    await announce(tx, actor.businessId);
  });
}

/** The day before the next date, so that "after it" finds that date again under another rule. */
const lastDone = (repeat: Repeat): CalendarDate | null => {
  if (!repeat.nextNominal) return null;
  const before = comingDates(repeat.schedule, [], null, FAR).filter(
    ({ nominal }) => nominal < (repeat.nextNominal ?? ''),
  );
  return before.at(-1)?.nominal ?? null;
};

/** Nothing is made until it is resumed; dates that pass meanwhile are left out. */
export const pauseRepeat = (actor: Actor, id: string): Promise<void> =>
  changeRepeat(actor, id, (repeat) => (repeat.state === 'active' ? { ...repeat, state: 'paused' } : repeat));

/** Goes on with the next date from today on. */
export const resumeRepeat = (actor: Actor, id: string): Promise<void> =>
  changeRepeat(actor, id, (repeat, today) => {
    if (repeat.state !== 'paused') return repeat;
    const from = repeat.nextNominal;
    const pauses = from && from < today ? [...repeat.pauses, { from, to: dayBefore(today) }] : repeat.pauses;
    const date = next(repeat.schedule, pauses, lastDone(repeat));
    return { ...repeat, pauses, ...nextOf(date), state: date ? 'active' : 'finished' };
  });

const dayBefore = (today: CalendarDate): CalendarDate =>
  new Date(Date.parse(`${today}T12:00:00Z`) - 86_400_000).toISOString().slice(0, 10) as CalendarDate;

/** Leaves the next date out. */
export const skipNext = (actor: Actor, id: string): Promise<void> =>
  changeRepeat(actor, id, (repeat) => {
    const { nextNominal } = repeat;
    if (!nextNominal) return repeat;
    const pauses = [...repeat.pauses, { from: nextNominal, to: nextNominal }];
    const date = next(repeat.schedule, pauses, nextNominal);
    return { ...repeat, pauses, ...nextOf(date), state: date ? repeat.state : 'finished' };
  });

/** Ends it for good; what was made stays. */
export const endRepeat = (actor: Actor, id: string): Promise<void> =>
  changeRepeat(actor, id, (repeat) => ({ ...repeat, state: 'finished', nextNominal: null, nextOn: null }));

/** Changes the rule, the name or what is made, from the next one on. @throws Refusal `no-dates` */
export const replanRepeat = (actor: Actor, id: string, plan: RepeatPlan): Promise<void> =>
  changeRepeat(actor, id, (repeat) => {
    const date = next(plan.schedule, repeat.pauses, lastDone(repeat));
    if (!date) throw new Refusal('no-dates');
    return { ...repeat, ...plan, ...nextOf(date), state: repeat.state === 'finished' ? 'active' : repeat.state };
  });

/** Takes what an invoice or draft says as what comes from the next one on. */
export async function repaperRepeat(actor: Actor, id: string, invoiceId: string): Promise<void> {
  const { paper } = found(await readBusiness(actor.businessId, (db) => invoiceById(db, actor.businessId, invoiceId)));
  await changeRepeat(actor, id, (repeat) => ({
    ...repeat,
    paper: { ...freshPaper(paper, randomUUID), customerId: repeat.customerId },
  }));
}

/** All repeats, with their customers. */
export function repeatList(actor: Actor): Promise<(Repeat & { customer: string })[]> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, (db) => repeatsOf(db, actor.businessId));
}

/** A repeat with what it made and what comes. @throws Refusal `not-found` */
export async function repeatSheet(
  actor: Actor,
  id: string,
): Promise<{ repeat: Repeat; customer: string; runs: RepeatRun[]; coming: ScheduledDate[] }> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => {
    const repeat = found(await repeatById(db, actor.businessId, id));
    const coming =
      repeat.state === 'finished' ? [] : comingDates(repeat.schedule, repeat.pauses, lastDone(repeat), SHOWN);
    return {
      repeat,
      customer: found(await customerById(db, actor.businessId, repeat.customerId)).name,
      runs: await runsOf(db, actor.businessId, id),
      coming,
    };
  });
}

/** Makes what is due of a business's repeats, each date once. */
export async function makeDueRepeats(businessId: string, now: Date): Promise<void> {
  for (;;) {
    const made = await inBusinessInTurn(businessId, async (tx) => {
      const business = await businessById(tx, businessId);
      const [claimed] = await claimRepeats(tx, businessId, dateInZone(now, business.zone), 1);
      if (!claimed) return false;
      await makeOne(tx, businessId, found(await repeatById(tx, businessId, claimed.id, true)), now);
      await announce(tx, businessId);
      return true;
    });
    if (!made) return;
  }
}

async function makeOne(tx: Tx, businessId: string, repeat: Repeat, now: Date): Promise<void> {
  const nominal = found(repeat.nextNominal);
  const business = await businessById(tx, businessId);
  const person = await personById(tx, businessId, repeat.byId);
  const customer = found(await customerById(tx, businessId, repeat.customerId));
  // The placeholders speak of the nominal month, not of the day to which a weekend moved it.
  const paper = freshPaper(filledPaper(repeat.paper, nominal, localeOf(business, customer)), randomUUID);
  let trouble: string | null = null;
  const id = await writeDraft(tx, business, { ...paper, customerId: customer.id }, 1, 'repeat', now);
  await insertHappening(tx, businessId, id, { kind: 'made', by: 'repeat' }, repeat.name, now);
  if (repeat.makes === 'send') {
    const actor = { businessId, name: person?.name ?? 'Dahlia' };
    const draft = found(await invoiceById(tx, businessId, id));
    const refused = await inSavepoint(tx, () => sendInTurn(tx, actor, business, draft, sendBy('mail'), now)).then(
      () => null,
      (error: unknown) => {
        if (error instanceof Refusal) return error;
        throw error;
      },
    );
    trouble = refused ? (refused.fields[0]?.words ?? refused.words) : null;
  }
  await insertRun(tx, businessId, repeat.id, { nominal, invoiceId: id, trouble }, now);
  const date = next(repeat.schedule, repeat.pauses, nominal);
  await updateRepeat(tx, businessId, { ...repeat, ...nextOf(date), state: date ? 'active' : 'finished' }, now);
}

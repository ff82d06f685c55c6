import type { Business } from '@/core/business/business';
import { type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import type { ReceivedBy } from '@/core/ledger/movements';
import { begunAnew } from '@/core/plan/schedule';
import { businessById } from '@/db/businesses';
import { type Charge, chargeById, chargesOfPlan, deleteUpcoming, markCarried, updateCharge } from '@/db/charges';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { type Plan, planById, updatePlan } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { insertHappening } from '@/db/timeline';
import { inBusinessInTurn, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from '../access';
import { recordReceived } from '../follow-invoice';
import { Refusal } from '../refusal';
import { withdrawAuthorisation } from './authorise';
import { askToCharge, billCharge } from './charge-plans';
import { planAhead } from './plan-ahead';
import { chargeInstant, planStanding, todayOf } from './plan-setting';
import { endPlan, pausePlanNow, resumed } from './plan-state';
import { keepPlan } from './plans';

type Deed = { readonly lead: string; readonly note: string };

/** One thing done with a plan by hand, told on its timeline. */
async function withPlan(
  actor: Actor,
  planId: string,
  deed: (tx: Tx, business: Business, plan: Plan, now: Date) => Promise<Deed | null>,
): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusinessInTurn(actor.businessId, async (tx) => {
    const business = await businessById(tx, actor.businessId);
    const plan = found(await planById(tx, actor.businessId, planId, true));
    const told = await deed(tx, business, plan, now);
    if (told) await insertHappening(tx, actor.businessId, { planId }, { kind: 'plan-deed', ...told }, actor.name, now);
    await announce(tx, actor.businessId);
  });
}

/** The same with one of its charges that is not made yet. @throws Refusal `charge-settled` */
async function withCharge(
  actor: Actor,
  chargeId: string,
  deed: (tx: Tx, business: Business, plan: Plan, charge: Charge, now: Date) => Promise<Deed | null>,
): Promise<void> {
  const { planId } = found(await readBusiness(actor.businessId, (db) => chargeById(db, actor.businessId, chargeId)));
  await withPlan(actor, planId, async (tx, business, plan, now) => {
    const charge = found(await chargeById(tx, actor.businessId, chargeId, true));
    if (charge.state !== 'upcoming' && charge.state !== 'refused') throw new Refusal('charge-settled');
    const told = await deed(tx, business, plan, charge, now);
    await planAhead(tx, business, found(await planById(tx, actor.businessId, planId, true)), now);
    return told;
  });
}

const dayOf = (business: Business, charge: Charge): string => shortDate(charge.chargedOn, business.locale);

export const pausePlan = (actor: Actor, planId: string): Promise<void> =>
  withPlan(actor, planId, async (tx, business, plan, now) => {
    await pausePlanNow(tx, business, plan, 'Until it is resumed', actor.name, now);
    return null;
  });

/** Goes on from today; what fell into the pause is left out. */
export const resumePlan = (actor: Actor, planId: string): Promise<void> =>
  withPlan(actor, planId, async (tx, business, plan, now) => {
    if (plan.state !== 'paused') return null;
    await planAhead(tx, business, resumed(business, plan, now), now);
    // What was refused before the pause is tried again.
    for (const charge of await chargesOfPlan(tx, business.id, planId)) {
      if (charge.state === 'refused' && charge.actAt === null)
        await updateCharge(tx, business.id, { ...charge, round: 0, tried: [], actAt: now });
    }
    await askToCharge(tx, business.id);
    return { lead: 'Resumed', note: '' };
  });

/** Ends a plan now; or, with `afterPeriod`, lets it run until the next date, which is not charged any more. */
export const cancelPlan = (actor: Actor, planId: string, afterPeriod: boolean): Promise<void> =>
  withPlan(actor, planId, async (tx, business, plan, now) => {
    if (plan.state === 'cancelled' || plan.state === 'finished') return null;
    const charges = await chargesOfPlan(tx, business.id, planId);
    const open = charges.filter(({ state }) => state === 'refused');
    if (!afterPeriod) {
      for (const charge of open)
        await updateCharge(tx, business.id, {
          ...charge,
          state: 'skipped',
          words: 'the plan was cancelled',
          actAt: null,
        });
      await endPlan(tx, business, plan, 'cancelled', 'At once', actor.name, now);
      return null;
    }
    const next = charges.find(({ state }) => state === 'upcoming');
    // What is paid for runs to its end: the plan is over on the day on which it would have been charged again.
    await deleteUpcoming(tx, business.id, planId);
    if (!next || plan.terms.kind === 'instalments') {
      await endPlan(tx, business, plan, 'cancelled', 'After the period', actor.name, now);
      return null;
    }
    const schedule = { ...plan.terms.schedule, ends: { on: dayBefore(next.nominal) } };
    await planAhead(tx, business, { ...plan, terms: { ...plan.terms, schedule } }, now);
    return {
      lead: 'To end after the period',
      note: `Not charged any more from ${shortDate(next.chargedOn, business.locale)}`,
    };
  });

const dayBefore = (on: CalendarDate): CalendarDate =>
  new Date(Date.parse(`${on}T12:00:00Z`) - 86_400_000).toISOString().slice(0, 10) as CalendarDate;

/** Leaves one charge out: of a membership that period, of parts of a balance that date, whose part comes at the end. */
export const skipCharge = (actor: Actor, chargeId: string): Promise<void> =>
  withCharge(actor, chargeId, async (tx, business, plan, charge) => {
    if (charge.part === 'deposit' || charge.invoiceId !== plan.invoiceId) throw new Refusal('charge-settled');
    await updateCharge(tx, business.id, {
      ...charge,
      state: 'skipped',
      words: `skipped by ${actor.name}`,
      actAt: null,
    });
    const pauses = [...plan.pauses, { from: charge.nominal, to: charge.nominal }];
    // What comes after it is planned anew: dates keep their sums, the last one comes later.
    await deleteUpcoming(tx, business.id, plan.id);
    await planAhead(tx, business, { ...plan, pauses }, await services().clock.now());
    return { lead: 'Skipped', note: dayOf(business, charge) };
  });

/** Gives a charge up for good: it is not asked for any more. The invoice, where there is one, is credited by hand. */
export const waiveCharge = (actor: Actor, chargeId: string): Promise<void> =>
  withCharge(actor, chargeId, async (tx, business, _plan, charge) => {
    await updateCharge(tx, business.id, { ...charge, state: 'skipped', words: `waived by ${actor.name}`, actAt: null });
    return { lead: 'Waived', note: dayOf(business, charge) };
  });

/** Charges on another day; the dates after it stay. @throws Refusal `no-dates` */
export const moveCharge = (actor: Actor, chargeId: string, to: string): Promise<void> =>
  withCharge(actor, chargeId, async (tx, business, _plan, charge, now) => {
    if (!isCalendarDate(to)) throw new Refusal('no-dates');
    const at = chargeInstant(business, to);
    const due = at <= now;
    await updateCharge(tx, business.id, { ...charge, chargedOn: to, actAt: due ? now : at });
    if (due) await askToCharge(tx, business.id);
    return { lead: 'Moved', note: `${dayOf(business, charge)} to ${shortDate(to, business.locale)}` };
  });

/** Takes a charge as paid in cash or by transfer: received on its invoice, with a receipt. @throws Refusal `charge-settled`, `no-card` */
export async function takeAsPaid(actor: Actor, chargeId: string, by: ReceivedBy, reference: string): Promise<void> {
  requireRight(actor, 'ask');
  const charge = found(await readBusiness(actor.businessId, (db) => chargeById(db, actor.businessId, chargeId)));
  if (charge.state !== 'refused' && charge.state !== 'billed' && charge.state !== 'upcoming')
    throw new Refusal('charge-settled');
  const invoiceId = charge.invoiceId ?? (await billCharge(actor.businessId, chargeId));
  await recordReceived(actor, invoiceId, {
    requestKey: `charge-received:${chargeId}`,
    amountMinor: charge.amountMinor,
    method: by,
    reference,
    receivedOn: '',
  });
}

/** Charges another sum from the next date on: the price of the first line. Parts of a balance stay as they were agreed. @throws Refusal `plan-not-ready` for what is no price */
export const changeAmount = (actor: Actor, planId: string, price: string): Promise<void> =>
  withPlan(actor, planId, async (tx, business, plan, now) => {
    if (plan.terms.kind !== 'membership') throw new Refusal('charge-settled');
    const [first, ...more] = plan.terms.paper.lines;
    if (!first) throw new Refusal('plan-not-ready');
    const paper = { ...plan.terms.paper, lines: [{ ...first, price }, ...more] };
    const changed = { ...plan, terms: { ...plan.terms, paper } };
    const { problems } = await planStanding(tx, business, changed);
    if (problems.length > 0) throw new Refusal('plan-not-ready', problems);
    await deleteUpcoming(tx, business.id, planId);
    if (plan.state === 'active') await planAhead(tx, business, changed, now);
    else await updatePlan(tx, business.id, changed, now);
    return { lead: 'Another price', note: `From the next charge on: ${price} instead of ${first.price}` };
  });

/** Charges all that is left of a balance at once. */
export const finishEarly = (actor: Actor, planId: string): Promise<void> =>
  withPlan(actor, planId, async (tx, business, plan, now) => {
    if (plan.terms.kind !== 'instalments' || plan.state !== 'active') throw new Refusal('charge-settled');
    for (const charge of await chargesOfPlan(tx, business.id, planId)) {
      if (charge.state === 'upcoming' || charge.state === 'refused')
        await updateCharge(tx, business.id, { ...charge, tried: [], actAt: now });
    }
    await askToCharge(tx, business.id);
    return { lead: 'The rest is charged now', note: '' };
  });

/** Marks charges as carried over into other books, with the day and the person. Returns how many are new. */
export async function carryOver(actor: Actor, ids: readonly string[]): Promise<number> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  return inBusinessInTurn(actor.businessId, async (tx) => {
    const count = await markCarried(tx, actor.businessId, ids, actor.name, now);
    await announce(tx, actor.businessId);
    return count;
  });
}

/** The customer withdrew the authorisation, as told at the desk: the plan ends, nothing more is charged. */
export async function withdrawAtDesk(actor: Actor, planId: string): Promise<void> {
  requireRight(actor, 'ask');
  const plan = found(await readBusiness(actor.businessId, (db) => planById(db, actor.businessId, planId)));
  await withdrawAuthorisation(actor, plan.customerId, planId);
}

/** A draft with the same terms, from today on: dates that are past would be charged at once. Returns its id. */
export async function duplicatePlan(actor: Actor, planId: string): Promise<string> {
  const now = await services().clock.now();
  const { plan, today } = await readBusiness(actor.businessId, async (db) => ({
    plan: found(await planById(db, actor.businessId, planId)),
    today: todayOf(await businessById(db, actor.businessId), now),
  }));
  const { terms, memo, reference } = plan;
  const schedule = terms.schedule.start < today ? begunAnew(terms.schedule, today) : terms.schedule;
  return (await keepPlan(actor, null, { terms: { ...terms, schedule }, memo, reference })).id;
}

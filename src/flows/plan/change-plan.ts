import type { Business } from '@/core/business/business';
import { addDays, isCalendarDate } from '@/core/dates/calendar-date';
import { after, can } from '@/core/plan/charge';
import { todayOf } from '@/core/plan/days';
import { begunAnew } from '@/core/schedule/schedule';
import { businessById } from '@/db/businesses';
import { chargesOfPlan, deleteUpcoming, updateCharges } from '@/db/charges';
import { customerById } from '@/db/customers';
import { type Plan, planById, updatePlan } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';
import { withdrawAuthorisation } from './authorise';
import { askToCharge } from './charge-now';
import { creditCharges, creditRest } from './credit-charges';
import { planAhead } from './plan-ahead';
import { readPlan } from './plan-setting';
import { endPlan, pausePlanNow, resumed } from './plan-state';
import { keepPlan } from './plans';

/** A plan of the business, locked. @throws Refusal `not-found` */
async function locked(tx: Tx, planId: string): Promise<{ business: Business; plan: Plan }> {
  return { business: await businessById(tx), plan: found(await planById(tx, planId, true)) };
}

/**
 * Takes no more until it is resumed; or, with a day, until then: what falls before it is left out, and the plan goes on by itself.
 *
 * @throws Refusal `no-such-day` for a day that is not to come
 */
export const pausePlan = desk('ask').turn(async (tx, planId: string, until: string = ''): Promise<void> => {
  const { business, plan } = await locked(tx, planId);
  if (until) {
    const today = todayOf(business, tx.now);
    if (!isCalendarDate(until) || until <= today) throw new Refusal('no-such-day');
    if (plan.state !== 'active') return;
    await deleteUpcoming(tx, planId);
    await planAhead(tx, business, { ...plan, pauses: [...plan.pauses, { from: today, to: addDays(until, -1) }] });
    await addToTimeline(tx, { planId }, { kind: 'plan-paused', why: 'by-hand', until }, tx.name);
    return;
  }
  await pausePlanNow(tx, plan, { why: 'by-hand', byName: tx.name });
});

/** Goes on from today; what fell into the pause is left out, and what was refused before it is tried again. */
export const resumePlan = desk('ask').turn(async (tx, planId: string): Promise<void> => {
  const { business, plan } = await locked(tx, planId);
  if (plan.state !== 'paused') return;
  await planAhead(tx, business, resumed(business, plan, tx.now));
  const waiting = (await chargesOfPlan(tx, planId)).filter(({ state, actAt }) => state === 'refused' && actAt === null);
  await updateCharges(
    tx,
    waiting.map((charge) => after(charge, { kind: 'retried', at: tx.now })),
  );
  await askToCharge(tx);
  await addToTimeline(tx, { planId }, { kind: 'plan-resumed' }, tx.name);
});

/**
 * Ends a plan now, and gives up what was refused or asked for; or, with `afterPeriod`, lets it run until the next date, which is not charged
 * any more. Both are told.
 *
 * @param keepOwed of a balance in parts: what is left of its invoice stays owed
 * @throws Refusal `payment-under-way`
 */
export const cancelPlan = desk('ask').turn(
  (tx, planId: string, afterPeriod: boolean, keepOwed: boolean = false): Promise<void> =>
    cancelPlanNow(tx, planId, { afterPeriod, keepOwed }),
);

/** The work of cancelling a plan, within a transaction that does more. */
export async function cancelPlanNow(
  tx: Writing,
  planId: string,
  { afterPeriod, keepOwed }: { readonly afterPeriod: boolean; readonly keepOwed: boolean },
): Promise<void> {
  const { business, plan } = await locked(tx, planId);
  if (plan.state === 'cancelled' || plan.state === 'finished') return;
  const charges = await chargesOfPlan(tx, planId);
  const next = charges.find(({ state }) => state === 'upcoming');
  if (!afterPeriod || !next || plan.terms.kind === 'instalments') {
    const open = charges.filter((charge) => can(charge, 'plan-ended'));
    if (plan.terms.kind === 'membership') await creditCharges(tx, open, 'Cancelled');
    else if (!keepOwed) await creditRest(tx, plan, 'Cancelled');
    await updateCharges(
      tx,
      open.map((charge) => after(charge, { kind: 'plan-ended', at: tx.now })),
    );
    const why = afterPeriod ? 'after-period' : 'at-once';
    return endPlan(tx, found(await planById(tx, planId, true)), 'cancelled', { why, byName: tx.name });
  }
  // What is paid for runs to its end: the plan is over on the day on which it would have been charged again.
  await deleteUpcoming(tx, planId);
  const schedule = { ...plan.terms.schedule, ends: { on: addDays(next.nominal, -1) } };
  await planAhead(tx, business, { ...plan, terms: { ...plan.terms, schedule }, endsOn: next.nominal });
  await addToTimeline(tx, { planId }, { kind: 'plan-ending', from: next.nominal }, tx.name);
  const customer = found(await customerById(tx, plan.customerId));
  if (customer.email)
    await queueMessage(tx, {
      kind: 'plan-ending',
      key: `plan-ending:${planId}:${next.nominal}`,
      planId,
      customerId: customer.id,
      toName: customer.name,
      toAddress: customer.email,
    });
}

/**
 * Charges another sum from the next date on: the price of the first line. Parts of a balance stay as they were agreed.
 *
 * @throws Refusal `plan-not-ready` for what is no price
 */
export const changeAmount = desk('ask').turn(async (tx, planId: string, price: string): Promise<void> => {
  const { business, plan } = await locked(tx, planId);
  if (plan.terms.kind !== 'membership') throw new Refusal('plan-of-another-kind');
  const [first, ...more] = plan.terms.paper.lines;
  if (!first) throw new Refusal('plan-not-ready');
  const paper = { ...plan.terms.paper, lines: [{ ...first, price }, ...more] };
  const changed = { ...plan, terms: { ...plan.terms, paper } };
  const { problems } = await readPlan(tx, business, changed);
  if (problems.length > 0) throw new Refusal('plan-not-ready', problems);
  await deleteUpcoming(tx, planId);
  if (plan.state === 'active') await planAhead(tx, business, changed);
  else await updatePlan(tx, changed);
  await addToTimeline(tx, { planId }, { kind: 'price-changed', from: first.price, to: price }, tx.name);
});

/** Charges all that is left of a balance at once. */
export const finishEarly = desk('take').turn(async (tx, planId: string): Promise<void> => {
  const { plan } = await locked(tx, planId);
  if (plan.terms.kind !== 'instalments' || plan.state !== 'active') throw new Refusal('plan-of-another-kind');
  const left = (await chargesOfPlan(tx, planId)).filter((charge) => can(charge, 'hurried'));
  await updateCharges(
    tx,
    left.map((charge) => after(charge, { kind: 'hurried', cardId: charge.cardId, at: tx.now })),
  );
  await askToCharge(tx);
  await addToTimeline(tx, { planId }, { kind: 'rest-charged' }, tx.name);
});

/** The customer withdrew the authorisation, as told at the desk: the plan ends, nothing more is charged. */
export const withdrawAtDesk = desk('ask').turn(async (tx, planId: string): Promise<void> => {
  const plan = found(await planById(tx, planId));
  await withdrawAuthorisation(tx, plan.customerId, planId);
});

/** A draft with the same terms, from today on: dates that are past would be charged at once. Returns its id. */
export const duplicatePlan = desk('ask').run(async (ctx, planId: string): Promise<string> => {
  const { plan, today } = await ctx.read(async (db) => ({
    plan: found(await planById(db, planId)),
    today: todayOf(await businessById(db), ctx.now),
  }));
  const { terms, memo, reference } = plan;
  const schedule = terms.schedule.start < today ? begunAnew(terms.schedule, today) : terms.schedule;
  return (await keepPlan(ctx.actor, null, { terms: { ...terms, schedule }, memo, reference })).id;
});

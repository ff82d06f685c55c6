import type { Business } from '@/core/business/business';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { todayOf } from '@/core/plan/days';
import type { PlanEndReason } from '@/core/timeline/timeline';
import { businessById } from '@/db/businesses';
import { chargesOfPlan, deleteUpcoming } from '@/db/charges';
import { customerById } from '@/db/customers';
import { type Plan, updatePlan } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addToTimeline } from '@/db/timeline';
import { found } from '@/flows/door/rights';
import { queueMessage } from '@/flows/message/queue-message';

/** The end of a pause that nobody has ended yet. */
const OPEN = '9999-12-31' as CalendarDate;

/** Pauses a plan: what was to come is taken back until it goes on. Returns it as it is then. */
export async function pausePlanNow(
  tx: Tx,
  plan: Plan,
  { why, byName }: { readonly why: 'by-hand' | 'refused'; readonly byName: string },
): Promise<Plan> {
  if (plan.state !== 'active') return plan;
  const business = await businessById(tx);
  const next = (await chargesOfPlan(tx, plan.id)).find(({ state }) => state === 'upcoming');
  await deleteUpcoming(tx, plan.id);
  const from = next?.nominal ?? todayOf(business, tx.now);
  const paused: Plan = {
    ...plan,
    state: 'paused',
    nextOn: null,
    pauses: [...plan.pauses, { from, to: OPEN, ...(why === 'refused' ? { why } : {}) }],
  };
  await updatePlan(tx, paused);
  await addToTimeline(tx, { planId: plan.id }, { kind: 'plan-paused', why }, byName);
  return paused;
}

/** Whether a plan is paused because a charge stayed refused: then a new card lets it go on. */
export const isPausedByRefusal = ({ state, pauses }: Pick<Plan, 'state' | 'pauses'>): boolean =>
  state === 'paused' && pauses.some(({ to, why }) => to === OPEN && why === 'refused');

/** A paused plan goes on from today: what fell into the pause is left out, and nothing else. */
export function resumed(business: Business, plan: Plan, now: Date): Plan {
  const yesterday = addDays(todayOf(business, now), -1);
  const pauses = plan.pauses
    .map((pause) => (pause.to === OPEN ? { ...pause, to: yesterday } : pause))
    .filter(({ from, to }) => from <= to);
  return { ...plan, state: 'active', pauses };
}

/** Ends a plan for good; what was charged stays, nothing more is. */
export async function endPlan(
  tx: Tx,
  plan: Plan,
  state: 'cancelled' | 'finished',
  { why, byName }: { readonly why: PlanEndReason; readonly byName: string },
): Promise<void> {
  if (plan.state === 'cancelled' || plan.state === 'finished') return;
  await deleteUpcoming(tx, plan.id);
  const started = plan.startsOn !== null;
  await updatePlan(tx, { ...plan, state, nextOn: null, endsOn: null, endedAt: tx.now });
  await addToTimeline(tx, { planId: plan.id }, { kind: 'plan-ended', state, why }, byName);
  if (!started || state === 'finished') return;
  const customer = found(await customerById(tx, plan.customerId));
  const business = await businessById(tx);
  // Who ended it by hand knows it.
  if (why === 'after-period' && byName === 'Dahlia' && business.email)
    await queueMessage(tx, {
      kind: 'plan-over',
      key: `plan-over:${plan.id}`,
      planId: plan.id,
      customerId: customer.id,
      toName: business.name,
      toAddress: business.email,
    });
  if (customer.email)
    await queueMessage(tx, {
      kind: 'plan-ended',
      key: `plan-ended:${plan.id}`,
      planId: plan.id,
      customerId: customer.id,
      toName: customer.name,
      toAddress: customer.email,
    });
}

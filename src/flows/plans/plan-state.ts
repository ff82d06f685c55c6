import type { Business } from '@/core/business/business';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { chargesOfPlan, deleteUpcoming } from '@/db/charges';
import { customerById } from '@/db/customers';
import { type Plan, updatePlan } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { insertHappening } from '@/db/timeline';
import { found } from '../access';
import { queueMessage } from '../queue-message';
import { todayOf } from './plan-setting';

/** The end of a pause that nobody has ended yet. */
const OPEN = '9999-12-31' as CalendarDate;

/** Pauses a plan: what was to come is taken back until it goes on. Returns it as it is then. */
export async function pausePlanNow(
  tx: Tx,
  business: Business,
  plan: Plan,
  why: string,
  byName: string,
  now: Date,
  refused = false,
): Promise<Plan> {
  if (plan.state !== 'active') return plan;
  const next = (await chargesOfPlan(tx, business.id, plan.id)).find(({ state }) => state === 'upcoming');
  await deleteUpcoming(tx, business.id, plan.id);
  const from = next?.nominal ?? todayOf(business, now);
  const paused: Plan = {
    ...plan,
    state: 'paused',
    nextOn: null,
    pauses: [...plan.pauses, { from, to: OPEN, ...(refused ? { why: 'refused' as const } : {}) }],
  };
  await updatePlan(tx, business.id, paused, now);
  await insertHappening(
    tx,
    business.id,
    { planId: plan.id },
    { kind: 'plan-deed', lead: 'Paused', note: why },
    byName,
    now,
  );
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
  business: Business,
  plan: Plan,
  state: 'cancelled' | 'finished',
  why: string,
  byName: string,
  now: Date,
): Promise<void> {
  if (plan.state === 'cancelled' || plan.state === 'finished') return;
  await deleteUpcoming(tx, business.id, plan.id);
  const started = plan.startsOn !== null;
  await updatePlan(tx, business.id, { ...plan, state, nextOn: null, endedAt: now }, now);
  const lead = state === 'cancelled' ? 'Cancelled' : 'Finished';
  await insertHappening(tx, business.id, { planId: plan.id }, { kind: 'plan-deed', lead, note: why }, byName, now);
  if (!started || state === 'finished') return;
  const customer = found(await customerById(tx, business.id, plan.customerId));
  if (customer.email)
    await queueMessage(
      tx,
      business.id,
      {
        kind: 'plan-ended',
        key: `plan-ended:${plan.id}`,
        planId: plan.id,
        customerId: customer.id,
        toName: customer.name,
        toAddress: customer.email,
      },
      now,
    );
}

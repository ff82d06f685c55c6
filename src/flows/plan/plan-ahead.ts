import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { addDays } from '@/core/dates/calendar-date';
import { jsonMinor } from '@/core/money/money';
import { isFree, lookAhead } from '@/core/plan/ahead';
import type { KeptReason } from '@/core/plan/charge';
import { chargeInstant, todayOf } from '@/core/plan/days';
import { isAtStart, type PlannedCharge } from '@/core/plan/plan';
import { insertCharges, type KnownCharge, knownCharges, type NewCharge } from '@/db/charges';
import { beginDailyLook, type DailyConcern } from '@/db/due-work';
import { type Plan, updatePlan, updateProgress } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addLines } from '@/db/timeline';
import { planContext, planReadings } from './plan-setting';

export const keptReasons = (charge: Pick<PlannedCharge, 'reasons'>): KeptReason[] =>
  charge.reasons.map((reason) => ('minor' in reason ? { ...reason, minor: jsonMinor(reason.minor) } : reason));

function newCharge(business: Business, plan: Plan, charge: PlannedCharge, now: Date): NewCharge {
  const { part, nominal, chargedOn, amountMinor } = charge;
  const free = isFree(charge);
  const atStart = isAtStart(charge);
  const { noticeDays } = plan.terms;
  return {
    id: randomUUID(),
    planId: plan.id,
    customerId: plan.customerId,
    part,
    nominal,
    chargedOn,
    amountMinor,
    currency: plan.currency,
    reasons: keptReasons(charge),
    state: free ? 'free' : 'upcoming',
    note: free ? { code: 'first-period-free' } : null,
    noticeOn: free || noticeDays === null ? null : addDays(chargedOn, -noticeDays),
    actAt: free ? null : atStart ? now : chargeInstant(business, chargedOn),
    invoiceId: plan.invoiceId,
  };
}

/** What a running plan has looked at daily. */
const looksOf = ({ state, terms, invoiceId }: Plan): DailyConcern[] =>
  state !== 'active' ? [] : terms.pay === 'card' ? ['cards'] : invoiceId ? ['parts'] : [];

/**
 * Writes down what plans charge next, as far ahead as is kept, and brings their sums up to date. What is written down stays;
 * a plan without anything more to come is finished.
 */
export async function planAllAhead(tx: Tx, business: Business, plans: readonly Plan[]): Promise<Plan[]> {
  if (plans.length === 0) return [];
  const readings = await planReadings(tx, business, plans);
  const known = new Map<string, KnownCharge[]>();
  for (const charge of await knownCharges(
    tx,
    plans.map(({ id }) => id),
  ))
    known.set(charge.planId, [...(known.get(charge.planId) ?? []), charge]);
  const today = todayOf(business, tx.now);
  const fresh: NewCharge[] = [];
  const next = plans.map((before): Plan => {
    const { sums, currency } = readings(before);
    const plan = { ...before, currency };
    const ahead = lookAhead(plan, known.get(plan.id) ?? [], sums, planContext(business, plan, today));
    fresh.push(...ahead.fresh.map((charge) => newCharge(business, plan, charge, tx.now)));
    return { ...plan, ...ahead.progress, ...(ahead.over ? { state: 'finished', endedAt: tx.now } : {}) };
  });
  await insertCharges(tx, fresh);
  const looks = [...new Set(plans.flatMap(looksOf))];
  if (looks.length > 0) await beginDailyLook(tx, looks);
  await updateProgress(tx, next);
  const over = next.filter(({ state }, at) => state === 'finished' && plans[at]?.state === 'active');
  await addLines(
    tx,
    over.map(({ id }) => ({
      of: { planId: id },
      event: { kind: 'plan-ended', state: 'finished', why: 'all-charged' },
      byName: 'Dahlia',
    })),
  );
  return next;
}

/** Writes a plan down as it is now, and what it charges next. */
export async function planAhead(tx: Tx, business: Business, plan: Plan): Promise<Plan> {
  await updatePlan(tx, plan);
  const [next = plan] = await planAllAhead(tx, business, [plan]);
  return next;
}

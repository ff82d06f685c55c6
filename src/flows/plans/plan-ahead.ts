import { randomUUID } from 'node:crypto';
import type { Business } from '@/core/business/business';
import { type PlannedCharge, plannedCharges } from '@/core/plan/plan';
import { type Charge, chargesOfPlan, insertCharges, type KeptReason, type NewCharge, planTotals } from '@/db/charges';
import { type Plan, updatePlan } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { insertHappening } from '@/db/timeline';
import { chargeInstant, planContext, planStanding, todayOf } from './plan-setting';

/** So many charges of a plan stand written down ahead; all parts of a balance do. */
const AHEAD = 13;
/** Beyond this many dates an end is as good as none. */
const FAR = 20_000;

export const keptReasons = (charge: PlannedCharge): KeptReason[] =>
  charge.reasons.map((reason) => ('minor' in reason ? { ...reason, minor: Number(reason.minor) } : reason));

const keyOf = ({ part, nominal }: Pick<Charge, 'part' | 'nominal'>): string => `${part} ${nominal}`;

/**
 * Writes down what a plan charges next, as far ahead as is kept, and brings its sums up to date. What is written down stays;
 * a plan without anything more to come is finished.
 */
export async function planAhead(tx: Tx, business: Business, plan: Plan, now: Date): Promise<Plan> {
  const today = todayOf(business, now);
  const { sums, currency } = await planStanding(tx, business, plan);
  const kept = await chargesOfPlan(tx, business.id, plan.id);
  const known = new Set(kept.map(keyOf));
  const parts = plan.terms.kind === 'instalments';
  let ahead = kept.filter(({ state }) => state === 'upcoming').length;
  const fresh: NewCharge[] = [];
  let [restMinor, restCount] = [0n, 0];
  const endless = !parts && plan.terms.schedule.ends === 'never';
  // A pause that nobody has ended yet goes on for ever: only what is active has dates.
  const active = plan.state === 'active';
  for (const charge of active ? plannedCharges(plan.terms, sums, planContext(business, plan, today)) : []) {
    if (known.has(keyOf(charge))) continue;
    if (!parts && ahead >= AHEAD) {
      if (endless || restCount >= FAR) break;
      if (charge.amountMinor > 0n) {
        restMinor += charge.amountMinor;
        restCount += 1;
      }
      continue;
    }
    const free = charge.amountMinor === 0n;
    const atStart = charge.part === 'deposit' || charge.reasons.some(({ kind }) => kind === 'at-start');
    fresh.push({
      id: randomUUID(),
      planId: plan.id,
      customerId: plan.customerId,
      part: charge.part,
      nominal: charge.nominal,
      chargedOn: charge.chargedOn,
      amountMinor: charge.amountMinor,
      currency,
      reasons: keptReasons(charge),
      state: free ? 'skipped' : 'upcoming',
      words: free ? 'the first period is free' : '',
      actAt: free ? null : atStart ? now : chargeInstant(business, charge.chargedOn),
      invoiceId: plan.invoiceId,
    });
    if (!free) ahead += 1;
  }
  await insertCharges(tx, business.id, fresh);
  const totals = await planTotals(tx, business.id, plan.id);
  const over = active && totals.open === 0 && restCount === 0;
  const next: Plan = {
    ...plan,
    currency,
    chargedMinor: totals.chargedMinor,
    chargedCount: totals.chargedCount,
    ...(active
      ? {
          plannedMinor: endless ? null : totals.plannedMinor + restMinor,
          plannedCount: endless ? null : totals.plannedCount + restCount,
        }
      : {}),
    nextOn: active ? totals.nextOn : null,
    refusedCount: totals.refused,
    ...(over ? { state: 'finished' as const, endedAt: now } : {}),
  };
  await updatePlan(tx, business.id, next, now);
  if (over)
    await insertHappening(
      tx,
      business.id,
      { planId: plan.id },
      { kind: 'plan-deed', lead: 'Finished', note: 'Everything planned is charged' },
      'Dahlia',
      now,
    );
  return next;
}

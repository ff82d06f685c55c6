import type { Business } from '@/core/business/business';
import { after, type ChangedCharge, type Charge } from '@/core/plan/charge';
import { todayOf } from '@/core/plan/days';
import { missedFates } from '@/core/plan/missed';
import { dueOfPlans, updateCharges } from '@/db/charges';
import { plansByIds } from '@/db/plans';
import type { Tx } from '@/db/pool';
import { addLines, type NewLine } from '@/db/timeline';
import { planAllAhead } from '@/flows/plan/plan-ahead';

/**
 * Takes those charges out of what is claimed whose days went by with others of their plan while nothing was charged: what becomes of them the
 * business's policy says. Looked at only where something is due of an earlier day.
 *
 * @returns what is charged now
 */
export async function withoutMissed(tx: Tx, business: Business, claimed: readonly Charge[]): Promise<Charge[]> {
  const today = todayOf(business, tx.now);
  const behind = claimed.filter(({ state, chargedOn }) => state === 'upcoming' && chargedOn < today);
  if (behind.length === 0 || business.charging.missed === 'all') return [...claimed];
  const plans = await plansByIds(tx, [...new Set(behind.map(({ planId }) => planId))]);
  // Also those that this claim has no room for.
  const due = await dueOfPlans(
    tx,
    plans.map(({ id }) => id),
  );
  const waiting = new Map(due.map((charge) => [charge.id, charge]));
  const gone = new Set<string>();
  const changed: ChangedCharge[] = [];
  const lines: NewLine[] = [];
  for (const { id: planId, startsOn } of plans) {
    const own = due.filter((charge) => charge.planId === planId);
    const fates = missedFates(own, business.charging.missed, { startsOn, today });
    for (const then of ['wait', 'leave-out'] as const) {
      const those = own.filter(({ id }) => fates.get(id) === then);
      if (those.length === 0) continue;
      for (const { id } of those) gone.add(id);
      const event = then === 'wait' ? ({ kind: 'missed' } as const) : ({ kind: 'missed-out', at: tx.now } as const);
      changed.push(...those.map((charge) => after(waiting.get(charge.id) ?? charge, event)));
      const days = those.map(({ chargedOn }) => chargedOn);
      lines.push({ of: { planId }, event: { kind: 'charges-missed', days, then }, byName: 'Dahlia' });
    }
  }
  await updateCharges(tx, changed);
  await addLines(tx, lines);
  await planAllAhead(
    tx,
    business,
    plans.filter(({ state, id }) => state === 'active' && changed.some(({ planId }) => planId === id)),
  );
  return claimed.filter(({ id }) => !gone.has(id));
}

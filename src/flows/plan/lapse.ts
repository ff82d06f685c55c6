import { todayOf } from '@/core/plan/days';
import { businessById } from '@/db/businesses';
import { claimEnding, claimLapsed } from '@/db/plans';
import { type Context } from '@/flows/door/operation';
import { endPlan } from './plan-state';

const AT_ONCE = 50;

/** Ends the plans whose link nobody followed in time, and those that were to run until the end of the period that is paid for. */
export async function lapse(ctx: Context): Promise<void> {
  await ctx.write(async (tx) => {
    const business = await businessById(tx);
    const lapsed = await claimLapsed(tx, todayOf(business, ctx.now), AT_ONCE);
    for (const plan of lapsed) await endPlan(tx, plan, 'cancelled', { why: 'lapsed', byName: 'Dahlia' });
    for (const plan of await claimEnding(tx, todayOf(business, ctx.now), AT_ONCE))
      await endPlan(tx, plan, 'cancelled', { why: 'after-period', byName: 'Dahlia' });
  });
}

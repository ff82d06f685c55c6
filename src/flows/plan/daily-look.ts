import { addDays } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { todayOf } from '@/core/plan/days';
import { businessById } from '@/db/businesses';
import { type DailyConcern, setNextLook } from '@/db/due-work';
import type { Context } from '@/flows/door/operation';

/** What was looked at today is looked at again when the next day of the business begins. */
export const lookTomorrow = async (ctx: Context, concern: DailyConcern): Promise<void> => {
  await ctx.write(async (tx) => {
    const business = await businessById(tx);
    const tomorrow = addDays(todayOf(business, tx.now), 1);
    await setNextLook(tx, concern, instantInZone(tomorrow, '00:00', business.zone));
  });
};

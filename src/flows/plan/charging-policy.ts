import { changedBetween, chargingSettings } from '@/core/business/money-settings';
import { addDays } from '@/core/dates/calendar-date';
import { todayOf } from '@/core/plan/days';
import type { ChargingPolicy } from '@/core/plan/dunning';
import { businessById, updateBusiness } from '@/db/businesses';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { readSafely } from '@/flows/file/read-safely';
import { noteSettings } from '@/flows/log/log';
import { keepWording } from './authorise';

const YEARS = 3;

/** Keeps how plans are charged, and the wording that customers agree to; what is written down already stays on its day. */
export const keepCharging = desk('settings').run(
  async (ctx, policy: ChargingPolicy, wording?: string): Promise<void> => {
    const retryDays = [...new Set(policy.retryDays)].sort((a, b) => a - b);
    await ctx.write(async (tx) => {
      const business = await businessById(tx);
      const charging = { ...policy, retryDays };
      await updateBusiness(tx, { ...business, charging });
      await noteSettings(
        tx,
        'charging',
        changedBetween(chargingSettings(business.charging), chargingSettings(charging)),
      );
    });
    if (wording) await keepWording(ctx.actor, wording);
  },
);

/** The days off in an iCalendar file, for the next three years. @throws Refusal `calendar-not-read`, `file-too-heavy` */
export const readHolidays = desk('settings').run(async (ctx, text: string): Promise<{ on: string; name: string }[]> => {
  const today = todayOf(await ctx.read(businessById), ctx.now);
  const days = await readSafely('holidays', text, today, addDays(today, 366 * YEARS));
  if (!days || days.length === 0) throw new Refusal('calendar-not-read');
  return days;
});

import { addDays } from '@/core/dates/calendar-date';
import type { ChargingPolicy } from '@/core/plan/dunning';
import { businessById, updateBusiness } from '@/db/businesses';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { inBusiness } from '@/db/transaction';
import { holidaysOf } from '@/documents/calendar/charges';
import { services } from '@/outside/services';
import { requireRight } from '../access';
import { Refusal } from '../refusal';
import { keepWording } from './authorise';
import { todayOf } from './plan-setting';

const YEARS = 3;

/** Keeps how plans are charged, and the wording that customers agree to; what is written down already stays on its day. */
export async function keepCharging(actor: Actor, policy: ChargingPolicy, wording?: string): Promise<void> {
  requireRight(actor, 'ask');
  const retryDays = [...new Set(policy.retryDays)].sort((a, b) => a - b);
  await inBusiness(actor.businessId, async (tx) => {
    const business = await businessById(tx, actor.businessId);
    await updateBusiness(tx, { ...business, charging: { ...policy, retryDays } });
    await announce(tx, actor.businessId);
  });
  if (wording) await keepWording(actor, wording);
}

/** The days off in an iCalendar file, for the next three years. @throws Refusal `calendar-not-read` */
export async function readHolidays(actor: Actor, text: string): Promise<{ on: string; name: string }[]> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  return inBusiness(actor.businessId, async (tx) => {
    const today = todayOf(await businessById(tx, actor.businessId), now);
    const days = holidaysOf(text, today, addDays(today, 366 * YEARS));
    if (!days || days.length === 0) throw new Refusal('calendar-not-read');
    return days;
  });
}

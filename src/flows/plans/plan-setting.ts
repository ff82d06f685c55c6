import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import type { PlanContext, PlanSums } from '@/core/plan/plan';
import { planReading } from '@/core/plan/sums';
import { customerById } from '@/db/customers';
import type { Plan } from '@/db/plans';
import type { Db } from '@/db/pool';
import { found } from '../access';
import { paperSetting } from '../paper-setting';

/** What a plan's dates are reckoned with: the day of its start (today while it has none), days off, pauses. */
export const planContext = (
  business: Business,
  plan: Pick<Plan, 'startsOn' | 'pauses'>,
  today: CalendarDate,
): PlanContext => ({
  startsOn: plan.startsOn ?? today,
  holidays: business.charging.holidays.map(({ on }) => on as CalendarDate),
  pauses: plan.pauses,
});

/** A plan as the business and its customer stand now: whose it is, and what it charges with today's taxes. */
export async function planStanding(
  db: Db,
  business: Business,
  plan: Plan,
): Promise<{
  customer: Customer;
  sums: PlanSums;
  currency: string;
  problems: ReturnType<typeof planReading>['problems'];
}> {
  const customer = found(await customerById(db, business.id, plan.customerId));
  return { customer, ...planReading(plan.terms, await paperSetting(db, business, customer)) };
}

/** The instant at which a day's charges are made (`calculation.md` 8). */
export const chargeInstant = (business: Business, on: CalendarDate): Date =>
  instantInZone(on, business.charging.hour, business.zone);

export const todayOf = (business: Business, now: Date): CalendarDate => dateInZone(now, business.zone);

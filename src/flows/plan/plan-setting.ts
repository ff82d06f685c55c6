import type { Business } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import type { PlanContext } from '@/core/plan/plan';
import { planReading } from '@/core/plan/sums';
import { customersByIds } from '@/db/customers';
import type { Plan } from '@/db/plans';
import type { Db } from '@/db/pool';
import { taxesOf } from '@/db/taxes';
import { found } from '@/flows/door/rights';
import { settingFor } from '@/flows/invoice/paper-setting';

/** What a plan's dates are reckoned with: the day of its start (today while it has none), days off, pauses. */
export const planContext = (
  business: Business,
  plan: Pick<Plan, 'startsOn' | 'pauses'> & Partial<Pick<Plan, 'decisions'>>,
  today: CalendarDate,
): PlanContext => ({
  startsOn: plan.startsOn ?? today,
  holidays: business.charging.holidays.map(({ on }) => on as CalendarDate),
  pauses: plan.pauses,
  decisions: plan.decisions ?? {},
});

type Subject = Pick<Plan, 'customerId' | 'terms'> & Partial<Pick<Plan, 'decisions'>>;

/** A plan as the business and its customer stand now: whose it is, and what it charges with today's taxes. */
export type PlanRead = ReturnType<typeof planReading> & { readonly customer: Customer };

/** Loads what these plans are read with. Returns how one of them reads, also with other terms. @throws Refusal `not-found` */
export async function planReadings(
  db: Db,
  business: Business,
  plans: readonly Subject[],
): Promise<(plan: Subject) => PlanRead> {
  const taxes = await taxesOf(db);
  const ids = [...new Set(plans.map(({ customerId }) => customerId))];
  const customers = new Map((await customersByIds(db, ids)).map((customer) => [customer.id, customer]));
  return ({ customerId, terms, decisions }) => {
    const customer = found(customers.get(customerId));
    return { customer, ...planReading(terms, settingFor(business, taxes, customer, terms.paper), decisions) };
  };
}

/** The same of one plan. */
export const readPlan = async (db: Db, business: Business, plan: Subject): Promise<PlanRead> =>
  (await planReadings(db, business, [plan]))(plan);

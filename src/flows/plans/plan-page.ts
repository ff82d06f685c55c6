import { sellerOf } from '@/core/business/business';
import type { Seller } from '@/core/invoice/printed';
import { forecast } from '@/core/plan/plan';
import type { PlanState } from '@/core/plan/state';
import { businessById } from '@/db/businesses';
import { chargesOfPlan } from '@/db/charges';
import { planById, planHolder } from '@/db/plans';
import { outsideBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { localeOf } from '../paper-setting';
import { servedPath } from '../served-file';
import { authorisationText } from './authorise';
import { keptReasons } from './plan-ahead';
import { planContext, planStanding, todayOf } from './plan-setting';

/** A charge as its customer sees it; `minor` in minor units. */
export type SeenCharge = {
  readonly part: 'deposit' | 'period';
  readonly nominal: string;
  readonly chargedOn: string;
  readonly minor: number;
  readonly reasons: ReturnType<typeof keptReasons>;
};

/** All that the customer's page of a plan shows. */
export type PlanPage = {
  readonly seller: Seller;
  readonly accent: string;
  /** Where the logo is fetched; null without one. */
  readonly logo: string | null;
  readonly locale: string;
  readonly currency: string;
  readonly name: string;
  readonly lines: readonly { readonly what: string; readonly quantity: string }[];
  readonly payer: string;
  readonly state: PlanState;
  readonly endless: boolean;
  readonly charges: readonly SeenCharge[];
  readonly totalMinor: number;
  /** What the customer is asked to agree to. */
  readonly agreement: string;
  readonly holidays: readonly string[];
};

/** The plan that a link opens, or null for a link that is none. */
export async function planPage(token: string): Promise<PlanPage | null> {
  const holder = await outsideBusiness((db) => planHolder(db, token));
  if (!holder) return null;
  const { businessId, planId } = holder;
  const now = await services().clock.now();
  return readBusiness(businessId, async (db) => {
    const business = await businessById(db, businessId);
    const plan = await planById(db, businessId, planId);
    if (!plan) return null;
    const { customer, sums, currency } = await planStanding(db, business, plan);
    const { text } = await authorisationText(db, business, customer, plan.terms.name);
    const kept = await chargesOfPlan(db, businessId, planId);
    const planned = plan.startsOn
      ? null
      : forecast(plan.terms, sums, planContext(business, plan, todayOf(business, now)));
    const charges: SeenCharge[] = planned
      ? planned.charges.map((charge) => ({
          part: charge.part,
          nominal: charge.nominal,
          chargedOn: charge.chargedOn,
          minor: Number(charge.amountMinor),
          reasons: keptReasons(charge),
        }))
      : kept
          .filter(({ state }) => state !== 'skipped')
          .map(({ part, nominal, chargedOn, amountMinor, reasons }) => ({
            part,
            nominal,
            chargedOn,
            minor: Number(amountMinor),
            reasons: [...reasons],
          }));
    return {
      seller: sellerOf(business),
      accent: business.accent,
      logo: business.logoId ? servedPath(businessId, business.logoId) : null,
      locale: localeOf(business, customer),
      currency,
      name: plan.terms.name,
      lines: plan.terms.paper.lines.map(({ what, quantity }) => ({ what, quantity })),
      payer: customer.name,
      state: plan.state,
      endless: plan.terms.kind === 'membership' && plan.terms.schedule.ends === 'never',
      charges,
      totalMinor: charges.reduce((sum, { minor }) => sum + minor, 0),
      agreement: text,
      holidays: business.charging.holidays.map(({ on }) => on),
    };
  });
}

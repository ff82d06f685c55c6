import { sellerOf } from '@/core/business/business';
import { asFront } from '@/core/front/front';
import type { Seller } from '@/core/invoice/printed';
import { jsonMinor } from '@/core/money/money';
import type { Charge } from '@/core/plan/charge';
import { todayOf } from '@/core/plan/days';
import { forecast, isAtStart } from '@/core/plan/plan';
import { isCounted, PAID_STATES, type PlanState } from '@/core/plan/state';
import { isLanguage, localeFor } from '@/core/words/words';
import { businessById } from '@/db/businesses';
import { chargesOfPlan } from '@/db/charges';
import { invoiceById } from '@/db/invoices';
import { planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { PLAN_LINK } from '@/flows/door/links';
import { byLink, orNull } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { servedPath } from '@/flows/file/served-file';
import { localeOf } from '@/flows/invoice/paper-setting';
import { agreementOf } from './agreement';
import { proposedChange } from './change-terms';
import { keptReasons } from './plan-ahead';
import { planContext, readPlan } from './plan-setting';

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
  /** A change that the customer is asked to agree to; null for none. */
  readonly change: { readonly before: string; readonly after: string } | null;
  /** How the charge stands that is made as soon as the plan begins; null where there is none, or it has not begun. */
  readonly first: FirstCharge | null;
};

/** A plan's charge at its beginning, for its customer; `link` is where it can be paid another way. */
export type FirstCharge = {
  readonly state: 'under-way' | 'paid' | 'refused';
  readonly minor: number;
  readonly link: string | null;
};

/** Whether another try is due, as after a new card. */
const isTriedNow = ({ actAt }: Pick<Charge, 'actAt'>, now: Date): boolean => actAt !== null && actAt <= now;

async function firstOf(db: Db, kept: readonly Charge[]): Promise<FirstCharge | null> {
  const charge = kept.find((one) => isAtStart(one) && isCounted(one.state));
  if (!charge) return null;
  const state = PAID_STATES.some((paid) => paid === charge.state)
    ? 'paid'
    : charge.state === 'refused' && !isTriedNow(charge, db.now)
      ? 'refused'
      : 'under-way';
  const invoice = state === 'refused' && charge.invoiceId ? await invoiceById(db, charge.invoiceId) : null;
  return { state, minor: jsonMinor(charge.amountMinor), link: invoice ? `/i/${invoice.linkToken}` : null };
}

/** The plan that a link opens, or null for a link that is none. */
export const planPage = orNull(
  byLink(PLAN_LINK).read(async (db, planId: string, lang: string): Promise<PlanPage> => {
    const own = await businessById(db);
    const plan = found(await planById(db, planId));
    const business = asFront(own, plan.terms.paper);
    const { customer, sums, currency } = await readPlan(db, business, plan);
    const locale = localeFor(isLanguage(lang) ? lang : '', localeOf(business, customer), '');
    const { text } = await agreementOf(db, own, customer, [plan], locale);
    const kept = await chargesOfPlan(db, planId);
    const planned = plan.startsOn
      ? null
      : forecast(plan.terms, sums, planContext(business, plan, todayOf(business, db.now)));
    const charges: SeenCharge[] = planned
      ? planned.charges.map((charge) => ({
          part: charge.part,
          nominal: charge.nominal,
          chargedOn: charge.chargedOn,
          minor: jsonMinor(charge.amountMinor),
          reasons: keptReasons(charge),
        }))
      : kept
          .filter(({ state }) => state !== 'skipped')
          .map(({ part, nominal, chargedOn, amountMinor, reasons }) => ({
            part,
            nominal,
            chargedOn,
            minor: jsonMinor(amountMinor),
            reasons: [...reasons],
          }));
    return {
      seller: sellerOf(business),
      accent: business.accent,
      logo: business.logoId ? servedPath(db, business.logoId) : null,
      locale,
      currency,
      name: plan.terms.name,
      lines: plan.terms.paper.lines.map(({ what, quantity }) => ({ what, quantity })),
      payer: customer.name,
      state: plan.state,
      endless: plan.terms.kind === 'membership' && plan.terms.schedule.ends === 'never',
      charges,
      totalMinor: charges.reduce((sum, { minor }) => sum + minor, 0),
      agreement: text,
      change: await proposedChange(db, business, plan, lang),
      first: await firstOf(db, kept),
      holidays: business.charging.holidays.map(({ on }) => on),
    };
  }),
);

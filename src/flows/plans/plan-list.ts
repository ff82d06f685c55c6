import { type Customer } from '@/core/customer/customer';
import { type CalendarDate } from '@/core/dates/calendar-date';
import type { TimelineLine } from '@/core/invoice/timeline';
import { forecast } from '@/core/plan/plan';
import type { ShownCard } from '@/core/plan/shown-card';
import type { PlanState } from '@/core/plan/state';
import { type Authorisation, authorisationsOf } from '@/db/authorisations';
import { type Business, businessById } from '@/db/businesses';
import { cardsOf } from '@/db/cards';
import { attemptsOfPlan, type Charge, chargesOfPlan } from '@/db/charges';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import type { Actor } from '@/db/people';
import { type Plan, type PlanRow, planById, planCounts, planRows } from '@/db/plans';
import { taxesOf } from '@/db/taxes';
import { planTimeline } from '@/db/timeline';
import { readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from '../access';
import { shownCard } from './cards-on-file';
import { planContext, planStanding, todayOf } from './plan-setting';
import { planLink } from './written-plan';

export type { Plan, PlanRow };

const MOST = 400;

/** What the list shows. @param show a state, `refused`, or empty for all */
export async function planList(
  actor: Actor,
  words: string,
  show: PlanState | 'refused' | '',
): Promise<{ rows: PlanRow[]; counts: { state: PlanState; count: number; refused: number }[] }> {
  requireRight(actor, 'read');
  const ask = {
    words: words.trim(),
    states: show && show !== 'refused' ? [show] : [],
    refusedOnly: show === 'refused',
  };
  return readBusiness(actor.businessId, async (db) => ({
    rows: await planRows(db, actor.businessId, ask, MOST),
    counts: await planCounts(db, actor.businessId),
  }));
}

export type Attempt = Awaited<ReturnType<typeof attemptsOfPlan>>[number];

/** A plan with all that its sheet shows. */
export type PlanSheet = {
  readonly plan: Plan;
  readonly business: Business;
  readonly customer: Customer;
  readonly today: CalendarDate;
  readonly charges: readonly Charge[];
  /** What is planned while nothing is written down yet. */
  readonly planned: ReturnType<typeof forecast> | null;
  readonly attempts: readonly Attempt[];
  readonly cards: readonly ShownCard[];
  readonly authorisations: readonly Authorisation[];
  readonly timeline: readonly TimelineLine[];
  readonly link: string;
  /** The invoice over the whole balance. */
  readonly invoice: { readonly id: string; readonly number: string } | null;
};

/** @throws Refusal `not-found` */
export async function planSheet(actor: Actor, id: string): Promise<PlanSheet> {
  requireRight(actor, 'read');
  const { clock, publicUrl } = services();
  const now = await clock.now();
  const { businessId } = actor;
  return readBusiness(businessId, async (db) => {
    const business = await businessById(db, businessId);
    const plan = found(await planById(db, businessId, id));
    const today = todayOf(business, now);
    const { customer, sums, problems } = await planStanding(db, business, plan);
    const begun = plan.startsOn !== null;
    const invoice = plan.invoiceId ? await invoiceById(db, businessId, plan.invoiceId) : null;
    return {
      plan,
      business,
      customer,
      today,
      charges: await chargesOfPlan(db, businessId, id),
      planned: begun || problems.length > 0 ? null : safeForecast(plan, sums, planContext(business, plan, today)),
      attempts: await attemptsOfPlan(db, businessId, id),
      cards: (await cardsOf(db, businessId, plan.customerId)).map((card) => shownCard(card, business, now)),
      authorisations: (await authorisationsOf(db, businessId, plan.customerId)).filter(({ planId }) => planId === id),
      timeline: await planTimeline(db, businessId, id),
      link: planLink(publicUrl, plan.linkToken),
      invoice: invoice ? { id: invoice.id, number: invoice.number ?? '' } : null,
    };
  });
}

function safeForecast(plan: Plan, ...rest: [Parameters<typeof forecast>[1], Parameters<typeof forecast>[2]]) {
  try {
    return forecast(plan.terms, ...rest);
  } catch {
    return null; // a draft that does not work out yet; the composer says why
  }
}

/** What a plan is composed against: the business's taxes, and the customer where one is chosen. */
export function planSetting(
  actor: Actor,
  customerId: string,
): Promise<{ customer: Customer | null; taxes: Awaited<ReturnType<typeof taxesOf>> }> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => ({
    customer: isUuid(customerId) ? await customerById(db, actor.businessId, customerId) : null,
    taxes: await taxesOf(db, actor.businessId),
  }));
}

const isUuid = (text: string): boolean => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(text);

import { type Customer } from '@/core/customer/customer';
import { type CalendarDate } from '@/core/dates/calendar-date';
import { isUsualMoment } from '@/core/dates/usual';
import { type Charge } from '@/core/plan/charge';
import { todayOf } from '@/core/plan/days';
import { forecast } from '@/core/plan/plan';
import type { ShownCard } from '@/core/plan/shown-card';
import type { PlanState } from '@/core/plan/state';
import type { TimelineLine } from '@/core/timeline/timeline';
import { isUuid } from '@/core/uuid';
import { type Authorisation, authorisationsOf } from '@/db/authorisations';
import { type Business, businessById } from '@/db/businesses';
import { cardsOf } from '@/db/cards';
import { attemptsOfPlan, chargesOfPlan } from '@/db/charges';
import { customerById } from '@/db/customers';
import { invoiceById } from '@/db/invoices';
import { paymentRow } from '@/db/payments';
import { type Plan, type PlanRow, planById, planCounts, planRows, plansByNewest } from '@/db/plans';
import { taxesOf } from '@/db/taxes';
import { planTimeline } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { type PaymentWay, wayOf } from '@/flows/way/payment-way';
import { shownCard } from './cards-on-file';
import { planLink } from './links';
import { planContext, readPlan } from './plan-setting';

export type { Plan, PlanRow };

const MOST = 400;

/** What the list shows. @param show a state, `refused`, or empty for all */
export const planList = desk('see').run(
  async (
    ctx,
    words: string,
    show: PlanState | 'refused' | '',
  ): Promise<{ rows: PlanRow[]; counts: { state: PlanState; count: number; refused: number }[] }> => {
    const ask = {
      words: words.trim(),
      states: show && show !== 'refused' ? [show] : [],
      refusedOnly: show === 'refused',
    };
    return ctx.read(async (db) => ({
      rows: await planRows(db, ask, MOST),
      counts: await planCounts(db),
    }));
  },
);

const PAGE = 60;

/** A page of plans, newest first. @throws Refusal `not-found` for a cursor that is none */
export const planPage = desk('see').read(
  async (
    db,
    after: { readonly key: string; readonly id: string } | null,
  ): Promise<{ rows: Plan[]; next: { key: string; id: string } | null }> => {
    if (after && !isUsualMoment(after.key)) throw new Refusal('not-found');
    const rows = await plansByNewest(db, PAGE + 1, after);
    const last = rows[PAGE - 1];
    return {
      rows: rows.slice(0, PAGE),
      next: rows.length > PAGE && last ? { key: last.createdAt.toISOString(), id: last.id } : null,
    };
  },
);

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
  /** How far the money of the latest charge that was paid has come. */
  readonly way: PaymentWay | null;
  readonly cards: readonly ShownCard[];
  readonly authorisations: readonly Authorisation[];
  readonly timeline: readonly TimelineLine[];
  readonly link: string;
  /** The invoice over the whole balance. */
  readonly invoice: { readonly id: string; readonly number: string } | null;
};

/** @throws Refusal `not-found` */
export const planSheet = desk('see').run(async (ctx, id: string): Promise<PlanSheet> => {
  const { now } = ctx;
  return ctx.read(async (db) => {
    const business = await businessById(db);
    const plan = found(await planById(db, id));
    const today = todayOf(business, now);
    const { customer, sums, problems } = await readPlan(db, business, plan);
    const begun = plan.startsOn !== null;
    const invoice = plan.invoiceId ? await invoiceById(db, plan.invoiceId) : null;
    const attempts = await attemptsOfPlan(db, id);
    const paid = attempts.find(({ state }) => state === 'paid');
    const row = paid ? await paymentRow(db, paid.paymentId) : null;
    return {
      plan,
      business,
      customer,
      today,
      charges: await chargesOfPlan(db, id),
      planned: begun || problems.length > 0 ? null : safeForecast(plan, sums, planContext(business, plan, today)),
      attempts,
      way: row && (await wayOf(db, business, row)),
      cards: (await cardsOf(db, plan.customerId)).map((card) => shownCard(card, business, now)),
      authorisations: (await authorisationsOf(db, plan.customerId)).filter(({ planId }) => planId === id),
      timeline: await planTimeline(db, id),
      link: planLink(plan.linkToken),
      invoice: invoice ? { id: invoice.id, number: invoice.number ?? '' } : null,
    };
  });
});

function safeForecast(plan: Plan, ...rest: [Parameters<typeof forecast>[1], Parameters<typeof forecast>[2]]) {
  try {
    return forecast(plan.terms, ...rest);
  } catch {
    return null; // a draft that does not work out yet; the composer says why
  }
}

/** What a plan is composed against: the business's taxes, and the customer where one is chosen. */
export const planSetting = desk('see').read(
  async (
    db,
    customerId: string,
  ): Promise<{ customer: Customer | null; taxes: Awaited<ReturnType<typeof taxesOf>> }> => {
    return {
      customer: isUuid(customerId) ? await customerById(db, customerId) : null,
      taxes: await taxesOf(db),
    };
  },
);

import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { payBy } from '@/core/plan/plan';
import { DAYS_AHEAD, DAYS_BACK, type Horizon, horizon } from '@/core/today/horizon';
import { type Business, businessById } from '@/db/businesses';
import { type FailingCard, failingCards } from '@/db/cards';
import { openParts, plannedByDay, refusedCharges, type UpcomingRow } from '@/db/charges';
import { differingBatches } from '@/db/day-batches';
import { dueByDay, receivedByDay } from '@/db/day-sums';
import { type InvoiceRow, invoiceRows, largestDue, lateInvoices } from '@/db/invoices';
import { failedMessages } from '@/db/messages';
import { cameIn, type PaymentRow, pendingSince, refusedLately } from '@/db/payments';
import type { Actor } from '@/db/people';
import { planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { openQuestions } from '@/db/questions';
import { readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';

const QUEUE = 6;
const CHECKING_AFTER_MS = 60_000;
const REFUSED_DAYS = 14;

/** One thing that needs a hand, worst first. */
export type QueueItem =
  | { readonly kind: 'charge'; readonly charge: UpcomingRow }
  | {
      readonly kind: 'parts';
      /** The oldest of a plan's parts that are late, and what all of them come to. */
      readonly charge: UpcomingRow;
      readonly payBy: CalendarDate;
      readonly minor: bigint;
    }
  | { readonly kind: 'card'; readonly failing: FailingCard }
  | { readonly kind: 'refused'; readonly payment: PaymentRow }
  | { readonly kind: 'checking'; readonly payment: PaymentRow }
  | { readonly kind: 'undelivered'; readonly message: Awaited<ReturnType<typeof failedMessages>>[number] }
  | { readonly kind: 'batch'; readonly batch: Awaited<ReturnType<typeof differingBatches>>[number] }
  | { readonly kind: 'question'; readonly question: Awaited<ReturnType<typeof openQuestions>>[number] }
  | { readonly kind: 'late'; readonly invoice: InvoiceRow }
  | { readonly kind: 'draft'; readonly invoice: InvoiceRow };

type LateParts = Extract<QueueItem, { kind: 'parts' }>;

export type TodayView = {
  readonly business: Business;
  readonly today: ReturnType<typeof dateInZone>;
  readonly queue: readonly QueueItem[];
  /** Whether more waits behind what is shown. */
  readonly more: boolean;
  readonly cameIn: readonly PaymentRow[];
  /** What came in today, in the business's currency. */
  readonly cameInToday: bigint;
  readonly horizon: Horizon;
  readonly names: readonly { readonly dueOn: string; readonly customer: string; readonly invoiceId: string }[];
};

/** The first screen: what needs a hand, what came in, what is expected. */
export async function todayView(actor: Actor): Promise<TodayView> {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  const { businessId } = actor;
  return readBusiness(businessId, async (db) => {
    const business = await businessById(db, businessId);
    const today = dateInZone(now, business.zone);
    const own = <T extends { currency: string }>(sums: T[]): T[] =>
      sums.filter((sum) => sum.currency === business.currency);
    const received = own(await receivedByDay(db, businessId, addDays(today, -DAYS_BACK), today));
    const due = own(await dueByDay(db, businessId));
    const refused = await refusedLately(db, businessId, new Date(now.getTime() - REFUSED_DAYS * 86_400_000), QUEUE);
    const charges = await refusedCharges(db, businessId, QUEUE);
    const parts = await lateParts(db, businessId, today);
    // What stands there already for its charges does not stand there for its invoice too.
    const known = new Set(
      [...refused, ...charges, ...parts.map(({ charge }) => charge)].map(({ invoiceId }) => invoiceId),
    );
    const planned = own(await plannedByDay(db, businessId, today, addDays(today, DAYS_AHEAD)));
    const late = await lateInvoices(db, businessId, today, QUEUE * 2);
    const queue: QueueItem[] = [
      ...(await failedMessages(db, businessId, QUEUE)).map((message) => ({ kind: 'undelivered' as const, message })),
      ...refused.filter(({ channel }) => channel !== 'plan').map((payment) => ({ kind: 'refused' as const, payment })),
      ...charges.map((charge) => ({ kind: 'charge' as const, charge })),
      ...parts,
      ...(await failingCards(db, businessId, today, QUEUE)).map((failing) => ({ kind: 'card' as const, failing })),
      ...(await pendingSince(db, businessId, new Date(now.getTime() - CHECKING_AFTER_MS), QUEUE)).map((payment) => ({
        kind: 'checking' as const,
        payment,
      })),
      ...(await differingBatches(db, businessId, QUEUE)).map((batch) => ({ kind: 'batch' as const, batch })),
      ...(await openQuestions(db, businessId, QUEUE)).map((question) => ({ kind: 'question' as const, question })),
      ...late.filter(({ id }) => !known.has(id)).map((invoice) => ({ kind: 'late' as const, invoice })),
      ...(await invoiceRows(db, businessId, 'drafts', 3))
        .filter((invoice) => invoice.totalMinor > 0n)
        .map((invoice) => ({ kind: 'draft' as const, invoice })),
    ];
    return {
      business,
      today,
      queue: queue.slice(0, QUEUE),
      more: queue.length > QUEUE,
      cameIn: await cameIn(db, businessId, 10),
      cameInToday: received.find(({ on }) => on === today)?.minor ?? 0n,
      horizon: horizon(today, received, [...due, ...planned]),
      names: await largestDue(db, businessId, business.currency, today, addDays(today, DAYS_AHEAD)),
    };
  });
}

/** Parts of balances that were to be paid before today, those of a plan together, oldest first. */
async function lateParts(db: Db, businessId: string, today: CalendarDate): Promise<LateParts[]> {
  const late = new Map<string, LateParts>();
  for (const charge of await openParts(db, businessId, today, QUEUE * 4)) {
    const due = payBy(found(await planById(db, businessId, charge.planId)).terms, charge.chargedOn);
    if (due >= today) continue;
    const first = late.get(charge.planId) ?? { kind: 'parts', charge, payBy: due, minor: 0n };
    late.set(charge.planId, { ...first, minor: first.minor + charge.amountMinor });
  }
  return [...late.values()];
}

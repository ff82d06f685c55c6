import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { byCurrency } from '@/core/money/by-currency';
import { type Money, money } from '@/core/money/money';
import { payBy } from '@/core/plan/plan';
import { DAYS_AHEAD, DAYS_BACK, type Horizon, horizon } from '@/core/today/horizon';
import { type Business, businessById } from '@/db/businesses';
import { type FailingCard, failingCards } from '@/db/cards';
import { type MissedRow, missedCharges, openParts, plannedByDay, refusedCharges, type UpcomingRow } from '@/db/charges';
import { differingBatches } from '@/db/day-batches';
import { dueByDay, receivedByDay } from '@/db/day-sums';
import { type InvoiceRow, invoiceRows, largestDue, lateInvoices } from '@/db/invoice-lists';
import { type FailedMessage, failedMessages } from '@/db/messages';
import { cameIn, type PaymentRow, pendingSince, refusedLately } from '@/db/payments';
import { planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { openQuestions } from '@/db/questions';
import { type StuckJob, stuckJobs } from '@/db/stuck-jobs';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { daysBeyond } from '@/flows/plan/beyond';
import { TOLD_FROM } from './stuck-work';

const QUEUE = 6;
const CHECKING_AFTER_MS = 60_000;
const REFUSED_DAYS = 14;

/** One thing that needs a hand, worst first. */
export type QueueItem =
  | { readonly kind: 'charge'; readonly charge: UpcomingRow }
  | { readonly kind: 'missed'; readonly missed: MissedRow }
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
  | { readonly kind: 'stuck'; readonly job: StuckJob }
  | { readonly kind: 'undelivered'; readonly message: FailedMessage }
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
  /** What came in today, in the business's currency, and in others beside it. */
  readonly cameInToday: bigint;
  readonly cameInBeside: readonly Money[];
  readonly horizon: Horizon;
  /** What is expected in other currencies. */
  readonly expectedBeside: readonly Money[];
  readonly names: readonly { readonly dueOn: string; readonly customer: string; readonly invoiceId: string }[];
};

/** The first screen: what needs a hand, what came in, what is expected. */
export const todayView = desk('see').read(async (db): Promise<TodayView> => {
  const business = await businessById(db);
  const today = dateInZone(db.now, business.zone);
  const received = byCurrency(await receivedByDay(db, addDays(today, -DAYS_BACK), today), business.currency);
  const due = byCurrency(await dueByDay(db), business.currency);
  const refused = await refusedLately(db, new Date(db.now.getTime() - REFUSED_DAYS * 86_400_000), QUEUE);
  const charges = await refusedCharges(db, QUEUE);
  const parts = await lateParts(db, today);
  // What stands there already for its charges does not stand there for its invoice too.
  const known = new Set(
    [...refused, ...charges, ...parts.map(({ charge }) => charge)].map(({ invoiceId }) => invoiceId),
  );
  const ahead = { from: today, to: addDays(today, DAYS_AHEAD) };
  const planned = byCurrency(
    [...(await plannedByDay(db, ahead.from, ahead.to)), ...(await daysBeyond(db, business, ahead))],
    business.currency,
  );
  const abroad = [...new Set([...due.others.keys(), ...planned.others.keys()])].sort();
  const late = await lateInvoices(db, today, QUEUE * 2);
  const queue: QueueItem[] = [
    ...(await stuckJobs(db, TOLD_FROM, QUEUE)).map((job) => ({ kind: 'stuck' as const, job })),
    ...(await failedMessages(db, QUEUE)).map((message) => ({ kind: 'undelivered' as const, message })),
    ...refused.filter(({ channel }) => channel !== 'plan').map((payment) => ({ kind: 'refused' as const, payment })),
    ...(await missedCharges(db, QUEUE)).map((missed) => ({ kind: 'missed' as const, missed })),
    ...charges.map((charge) => ({ kind: 'charge' as const, charge })),
    ...parts,
    ...(await failingCards(db, today, QUEUE)).map((failing) => ({ kind: 'card' as const, failing })),
    ...(await pendingSince(db, new Date(db.now.getTime() - CHECKING_AFTER_MS), QUEUE)).map((payment) => ({
      kind: 'checking' as const,
      payment,
    })),
    ...(await differingBatches(db, QUEUE)).map((batch) => ({ kind: 'batch' as const, batch })),
    ...(await openQuestions(db, QUEUE)).map((question) => ({ kind: 'question' as const, question })),
    ...late.filter(({ id }) => !known.has(id)).map((invoice) => ({ kind: 'late' as const, invoice })),
    ...(await invoiceRows(db, 'drafts', 3))
      .filter((invoice) => invoice.totalMinor > 0n)
      .map((invoice) => ({ kind: 'draft' as const, invoice })),
  ];
  return {
    business,
    today,
    queue: queue.slice(0, QUEUE),
    more: queue.length > QUEUE,
    cameIn: await cameIn(db, 10),
    cameInToday: received.own.find(({ on }) => on === today)?.minor ?? 0n,
    cameInBeside: [...received.others].flatMap(([currency, days]) =>
      days.flatMap(({ on, minor }) => (on === today && minor > 0n ? [money(minor, currency)] : [])),
    ),
    horizon: horizon(today, received.own, [...due.own, ...planned.own]),
    expectedBeside: abroad.flatMap((currency) => {
      const { expected } = horizon(
        today,
        [],
        [...(due.others.get(currency) ?? []), ...(planned.others.get(currency) ?? [])],
      );
      return expected > 0n ? [money(expected, currency)] : [];
    }),
    names: await largestDue(db, business.currency, today, addDays(today, DAYS_AHEAD)),
  };
});

/** Parts of balances that were to be paid before today, those of a plan together, oldest first. */
async function lateParts(db: Db, today: CalendarDate): Promise<LateParts[]> {
  const late = new Map<string, LateParts>();
  for (const charge of await openParts(db, today, QUEUE * 4)) {
    const due = payBy(found(await planById(db, charge.planId)).terms, charge.chargedOn);
    if (due >= today) continue;
    const first = late.get(charge.planId) ?? { kind: 'parts', charge, payBy: due, minor: 0n };
    late.set(charge.planId, { ...first, minor: first.minor + charge.amountMinor });
  }
  return [...late.values()];
}

import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { byCurrency } from '@/core/money/by-currency';
import { type Money, money } from '@/core/money/money';
import { lookAt } from '@/core/parcel/shipment';
import { isHoldersTurn } from '@/core/payment/outcome';
import { payBy } from '@/core/plan/plan';
import { DAYS_AHEAD, DAYS_BACK, type Horizon, horizon } from '@/core/today/horizon';
import { type WorkList, workList } from '@/core/today/work';
import { waitingLines } from '@/db/bank-lines';
import { type Business, businessById } from '@/db/businesses';
import { failingCards } from '@/db/cards';
import { differingStatements } from '@/db/carrier-statements';
import { missedCharges, openParts, plannedByDay, refusedCharges } from '@/db/charges';
import { differingBatches } from '@/db/day-batches';
import { dueByDay, receivedByDay } from '@/db/day-sums';
import { disputesToAnswer } from '@/db/disputes';
import { invoiceRows, largestDue, lateInvoices } from '@/db/invoice-lists';
import { failedMessages, lastAsked, lastReminded } from '@/db/messages';
import { cameBackLately, cameIn, type PaymentRow, pendingSince, refusedLately } from '@/db/payments';
import { returnedPayouts } from '@/db/payouts';
import { planById } from '@/db/plans';
import type { Db } from '@/db/pool';
import { openQuestions } from '@/db/questions';
import { shipmentsToLookAt } from '@/db/shipments';
import { stuckJobs } from '@/db/stuck-jobs';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { recurringAhead } from '@/flows/invoice/recurring-ahead';
import { daysBeyond } from '@/flows/plan/beyond';
import { returnsToAnswer } from '@/flows/returning/returns';
import { stockToOrder } from '@/flows/stock/stock-desk';
import { TOLD_FROM } from './stuck-work';
import { type LateParts, type QueueItem, workItem } from './work-items';

export type { QueueItem };

/** So many of each kind are looked at; who has more begins with the most pressing. */
const MOST = 200;
const CHECKING_AFTER_MS = 60_000;
const DAY_MS = 86_400_000;
const REFUSED_DAYS = 14;
/** Whoever was reminded or asked within so many days is waited for. */
const PATIENCE_DAYS = 3;

export type TodayView = {
  readonly business: Business;
  readonly today: ReturnType<typeof dateInZone>;
  readonly queue: readonly QueueItem[];
  /** The same, put together by what is done about it. */
  readonly work: WorkList<QueueItem>;
  /** Whether there is more of some kind than was looked at. */
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
  const ahead = { from: today, to: addDays(today, DAYS_AHEAD) };
  const planned = byCurrency(
    [
      ...(await plannedByDay(db, ahead.from, ahead.to)),
      ...(await daysBeyond(db, business, ahead)),
      ...(await recurringAhead(db, business, ahead)),
    ],
    business.currency,
  );
  const abroad = [...new Set([...due.others.keys(), ...planned.others.keys()])].sort();
  const queue = await everything(db, today);
  return {
    business,
    today,
    queue,
    work: workList(queue.map((item) => workItem(item, { since: asDays(db.now, PATIENCE_DAYS) }))),
    more: [...new Set(queue.map(({ kind }) => kind))].some(
      (kind) => queue.filter((item) => item.kind === kind).length >= MOST,
    ),
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

const asDays = (now: Date, days: number): Date => new Date(now.getTime() - days * DAY_MS);

/** All that needs a hand, the most pressing kind first. What stands there for its charges does not stand there for its invoice too. */
async function everything(db: Db, today: CalendarDate): Promise<QueueItem[]> {
  const refused = await refusedLately(db, asDays(db.now, REFUSED_DAYS), MOST);
  const charges = await refusedCharges(db, MOST);
  const parts = await lateParts(db, today);
  const back = await cameBackLately(db, asDays(db.now, REFUSED_DAYS), MOST);
  const known = new Set(
    [...refused, ...back, ...charges, ...parts.map(({ charge }) => charge)].map(({ invoiceId }) => invoiceId),
  );
  const late = (await lateInvoices(db, today, MOST)).filter(({ id }) => !known.has(id));
  const cards = await failingCards(db, today, MOST);
  const checking = await pendingSince(db, new Date(db.now.getTime() - CHECKING_AFTER_MS), MOST);
  const wholes = [...late.map(({ id }) => id), ...[...refused, ...back].flatMap(({ invoiceId }) => invoiceId ?? [])];
  const reminded = await lastReminded(db, wholes, asDays(db.now, REFUSED_DAYS));
  const asked = await lastAsked(
    db,
    {
      planIds: [...charges, ...parts.map(({ charge }) => charge)].map(({ planId }) => planId),
      customerIds: [...charges, ...cards].map(({ customerId }) => customerId),
    },
    asDays(db.now, REFUSED_DAYS),
  );
  const latest = (...ids: readonly string[]): Date | null =>
    ids.flatMap((id) => asked.get(id) ?? []).sort((a, b) => b.getTime() - a.getTime())[0] ?? null;
  return [
    ...(await stuckJobs(db, TOLD_FROM, MOST)).map((job) => ({ kind: 'stuck' as const, job })),
    ...(await failedMessages(db, MOST)).map((message) => ({ kind: 'undelivered' as const, message })),
    ...refused
      .filter(({ channel }) => channel !== 'plan')
      .map((payment) => ({ kind: 'refused' as const, payment, asked: reminded.get(payment.invoiceId ?? '') ?? null })),
    ...back.map((payment) => ({
      kind: 'came-back' as const,
      payment,
      asked: reminded.get(payment.invoiceId ?? '') ?? null,
    })),
    ...(await missedCharges(db, MOST)).map((missed) => ({ kind: 'missed' as const, missed })),
    ...charges.map((charge) => ({
      kind: 'charge' as const,
      charge,
      needsCard: isHoldersTurn(charge.lastReason) || cards.some(({ planId }) => planId === charge.planId),
      asked: latest(charge.customerId, charge.planId),
    })),
    ...parts.map((part) => ({ ...part, asked: latest(part.charge.planId) })),
    ...cards
      .filter(({ planId }) => !charges.some((charge) => charge.planId === planId))
      .map((failing) => ({ kind: 'card' as const, failing, asked: latest(failing.customerId) })),
    ...checking.map((payment) => ({ kind: 'checking' as const, payment })),
    ...(await differingBatches(db, MOST)).map((batch) => ({ kind: 'batch' as const, batch })),
    ...(await differingStatements(db)).map((differing) => ({ kind: 'carrier' as const, differing })),
    ...(await disputesToAnswer(db, MOST)).map((dispute) => ({ kind: 'dispute' as const, dispute })),
    ...(await returnedPayouts(db, MOST)).map((payout) => ({ kind: 'payout' as const, payout })),
    ...(await shipmentsToLookAt(db, today, MOST)).flatMap((parcel) => {
      const look = lookAt(parcel, today);
      return look ? [{ kind: 'parcel' as const, parcel, look }] : [];
    }),
    ...(await waitingLines(db)).map((waiting) => ({ kind: 'bank' as const, waiting })),
    ...(await returnsToAnswer(db)).map((back) => ({ kind: 'return' as const, back })),
    ...(await lowNow(db)),
    ...(await openQuestions(db, MOST)).map((question) => ({ kind: 'question' as const, question })),
    ...late.map((invoice) => ({ kind: 'late' as const, invoice, asked: reminded.get(invoice.id) ?? null })),
    ...(await invoiceRows(db, 'drafts', MOST))
      .filter((invoice) => invoice.totalMinor > 0n)
      .map((invoice) => ({ kind: 'draft' as const, invoice })),
  ];
}

/** What runs low, as one thing to do: it is ordered in one go. */
async function lowNow(db: Db): Promise<QueueItem[]> {
  const low = await stockToOrder(db, MOST);
  return low.length > 0 ? [{ kind: 'stock', low }] : [];
}

/** Parts of balances that were to be paid before today, those of a plan together, oldest first. */
async function lateParts(db: Db, today: CalendarDate): Promise<LateParts[]> {
  const late = new Map<string, LateParts>();
  for (const charge of await openParts(db, today, MOST * 4)) {
    const due = payBy(found(await planById(db, charge.planId)).terms, charge.chargedOn);
    if (due >= today) continue;
    const first = late.get(charge.planId) ?? { kind: 'parts', charge, payBy: due, minor: 0n, asked: null };
    late.set(charge.planId, { ...first, minor: first.minor + charge.amountMinor });
  }
  return [...late.values()];
}

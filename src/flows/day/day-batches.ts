import { addDays, type CalendarDate, daysBetween, isCalendarDate, laterDay } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import {
  type BatchBack,
  type BatchDispute,
  type ByHand,
  type ByHandSum,
  batchSums,
  byHandSums,
  type DayTotal,
  dayTotals,
} from '@/core/payment/day-batch';
import { isUuid } from '@/core/uuid';
import { type Business, businessById } from '@/db/businesses';
import {
  byHandBetween,
  closedTo,
  type DayBatch,
  dayBatch,
  dayBatches,
  firstByHandAt,
  firstSaleAt,
  settleBatch,
} from '@/db/day-batches';
import { postedOn } from '@/db/ledger';
import { type PaymentRow, paymentRow, paymentRowsOf } from '@/db/payments';
import type { Db } from '@/db/pool';
import { DAY_HEADINGS, dayCells } from '@/documents/csv/day-rows';
import { csvText } from '@/documents/csv/write';
import { disputeCause } from '@/flows/dispute/record-dispute';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { midnight, movements, ofDay, signedMoves } from '@/flows/way/day-movements';

export type { DayBatch };

/** So many open days are shown at the most, where the processor has not answered for long. */
const MOST_OPEN = 31;
const PAGE = 40;

/** A day as the list shows it; `checkedAt` is null for one whose cards are not closed yet, or that had none. */
export type ListedBatch = Pick<DayBatch, 'day' | 'sums' | 'differences' | 'settledBy'> & {
  readonly checkedAt: Date | null;
  readonly byHand: readonly ByHandSum[];
};

/** Days, latest first: those whose cards are closed, before them those that are still open, and among them those with money by hand alone. */
export const batchList = desk('sums').read(
  async (
    db,
    before: CalendarDate | null,
  ): Promise<{ business: Business; today: CalendarDate; rows: ListedBatch[]; next: CalendarDate | null }> => {
    const business = await businessById(db);
    const today = dateInZone(db.now, business.zone);
    const closed = await dayBatches(db, PAGE + 1, before);
    const shown = closed.slice(0, PAGE);
    const open = before ? [] : await openBatches(db, business, today);
    const next = closed.length > PAGE ? (shown.at(-1)?.day ?? null) : null;
    const hand = await byHandDays(db, business, {
      from: next ?? (await firstHandDay(db, business, today)),
      to: before ? addDays(before, -1) : today,
    });
    const cards = new Map([...open, ...shown].map((row) => [row.day, row]));
    const days = [...new Set([...cards.keys(), ...hand.keys()])].sort().reverse();
    const rows = days.map((day) => ({
      ...NO_CARDS,
      day,
      ...cards.get(day),
      byHand: byHandSums(hand.get(day) ?? []),
    }));
    return { business, today, rows, next };
  },
);

const NO_CARDS = { sums: [], differences: [], settledBy: null, checkedAt: null } as const;

/** How far back days with money by hand alone are looked for, where no closed day bounds them. */
const HAND_DAYS = 400;

async function firstHandDay(db: Db, { zone }: Business, today: CalendarDate): Promise<CalendarDate> {
  const first = await firstByHandAt(db);
  return laterDay(first ? dateInZone(first, zone) : today, addDays(today, -HAND_DAYS));
}

/** Money by hand by its day. */
async function byHandDays(
  db: Db,
  business: Business,
  { from, to }: { readonly from: CalendarDate; readonly to: CalendarDate },
): Promise<Map<CalendarDate, ByHand[]>> {
  const days = new Map<CalendarDate, ByHand[]>();
  if (from > to) return days;
  for (const one of await byHandBetween(db, midnight(business, from), midnight(business, addDays(to, 1)))) {
    const day = dateInZone(one.at, business.zone);
    days.set(day, [...(days.get(day) ?? []), one]);
  }
  return days;
}

async function openBatches(db: Db, business: Business, today: CalendarDate): Promise<Omit<ListedBatch, 'byHand'>[]> {
  const closed = await closedTo(db);
  const first = closed ? null : await firstSaleAt(db);
  const since = closed ? addDays(closed, 1) : first ? dateInZone(first, business.zone) : today;
  const from = daysBetween(since, today) > MOST_OPEN ? addDays(today, -MOST_OPEN) : since;
  const ours = await movements(db, business, from, today);
  const open: Omit<ListedBatch, 'byHand'>[] = [];
  for (let day = today; day >= from; day = addDays(day, -1)) {
    const { sales, backs, disputes } = ofDay(ours, business, day);
    const sums = batchSums(sales, backs, disputes);
    if (sums.length > 0) open.push({ ...NO_CARDS, day, sums });
  }
  return open;
}

export type BatchLine = {
  readonly at: Date;
  readonly payment: PaymentRow;
  /** A sale, what was given back of one, or what a dispute moved; minor units, negative where it went out. */
  readonly back: BatchBack['kind'] | BatchDispute['kind'] | null;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
};

export type BatchSheet = {
  readonly business: Business;
  readonly batch: ListedBatch & Pick<DayBatch, 'settledWords'>;
  readonly lines: readonly BatchLine[];
  /** What came another way than by card. */
  readonly hand: readonly (Pick<ByHand, 'method' | 'amountMinor'> & {
    readonly at: Date;
    readonly payment: PaymentRow;
  })[];
  readonly totals: readonly DayTotal[];
  /** The payments that differences are about, by id, where there are such here. */
  readonly about: ReadonlyMap<string, PaymentRow>;
};

/** A day's batch with everything in it. @throws Refusal `not-found` for what is no day, or one without any movement */
export const batchSheet = desk('see').run(async (ctx, day: string): Promise<BatchSheet> => {
  if (!isCalendarDate(day)) throw new Refusal('not-found');
  return ctx.read(async (db) => {
    const business = await businessById(db);
    const kept = await dayBatch(db, day);
    const { sales, backs, disputes, hand } = await movements(db, business, day, day);
    if (!kept && sales.length + backs.length + disputes.length + hand.length === 0) throw new Refusal('not-found');
    const ids = [...sales, ...backs, ...disputes, ...hand].map(({ paymentId }) => paymentId);
    const rows = new Map((await paymentRowsOf(db, ids)).map((row) => [row.id, row]));
    const lines = signedMoves({ sales, backs, disputes, hand }).map(
      ({ at, paymentId, kind, amountMinor, feeMinor }): BatchLine => ({
        at,
        payment: found(rows.get(paymentId)),
        back: kind === 'sale' ? null : kind,
        amountMinor,
        feeMinor,
      }),
    );
    const about = new Map<string, PaymentRow>();
    for (const { paymentId } of kept?.differences ?? []) {
      const row = isUuid(paymentId) ? await paymentRow(db, paymentId) : null;
      if (row) about.set(paymentId, row);
    }
    const open = { ...NO_CARDS, day, sums: batchSums(sales, backs, disputes), settledWords: '' };
    const causes = [
      ...sales.map(({ paymentId }) => `payment:${paymentId}`),
      ...backs.map(({ refundId }) => `refund:${refundId}`),
      ...disputes.map(({ kind, disputeId }) => disputeCause(kind, disputeId)),
    ];
    const partners = await postedOn(db, 'partners', causes);
    const byHand = byHandSums(hand);
    const batch = { ...(kept ?? open), byHand };
    return {
      business,
      batch,
      lines,
      hand: hand.map(({ at, paymentId, method, amountMinor }) => ({
        at,
        method,
        amountMinor,
        payment: found(rows.get(paymentId)),
      })),
      // What is owed to partners is a credit.
      totals: dayTotals(batch.sums, byHand, new Map(partners.map(({ currency, minor }) => [currency, -minor]))),
      about,
    };
  });
});

/** The day's movements as CSV, for other books. */
export const batchCsv = desk('see').run(async (ctx, day: string): Promise<string> => {
  const { lines, hand, business } = await batchSheet(ctx.actor, day);
  const byHand = hand.map(({ method, ...line }) => ({ ...line, kind: method, feeMinor: 0n }));
  const all = [...lines.map(({ back, ...line }) => ({ ...line, kind: back ?? 'sale' })), ...byHand];
  return csvText(
    DAY_HEADINGS,
    all.map((line) => dayCells({ ...line, day: dateInZone(line.at, business.zone) }, business.zone)),
  );
});

/** Notes that somebody has looked into a day's differences, and what was found. */
export const settleDifferences = desk('ask').run(async (ctx, day: string, words: string): Promise<void> => {
  if (!isCalendarDate(day)) throw new Refusal('not-found');
  await ctx.write(async (tx) => {
    if ((await settleBatch(tx, day, ctx.name, words)) === 0) throw new Refusal('not-found');
  });
});

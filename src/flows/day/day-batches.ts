import { addDays, type CalendarDate, daysBetween, isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import { batchSums } from '@/core/payment/day-batch';
import { type Business, businessById } from '@/db/businesses';
import { closedTo, type DayBatch, dayBatch, dayBatches, firstSaleAt, settleBatch } from '@/db/day-batches';
import { type PaymentRow, paymentRow, paymentRowsOf } from '@/db/payments';
import type { Db } from '@/db/pool';
import { csvText } from '@/documents/csv/write';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { movements, ofDay } from './day-movements';

export type { DayBatch };

/** So many open days are shown at the most, where the processor has not answered for long. */
const MOST_OPEN = 31;
const PAGE = 40;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** A day's batch as the list shows it; `checkedAt` is null for the day that is not closed yet. */
export type ListedBatch = Pick<DayBatch, 'day' | 'sums' | 'differences' | 'settledBy'> & {
  readonly checkedAt: Date | null;
};

/** Batches day by day, latest first; before the closed ones those that are still open. */
export const batchList = desk('see').read(
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
    return { business, today, rows: [...open, ...shown], next };
  },
);

async function openBatches(db: Db, business: Business, today: CalendarDate): Promise<ListedBatch[]> {
  const closed = await closedTo(db);
  const first = closed ? null : await firstSaleAt(db);
  const since = closed ? addDays(closed, 1) : first ? dateInZone(first, business.zone) : today;
  const from = daysBetween(since, today) > MOST_OPEN ? addDays(today, -MOST_OPEN) : since;
  const ours = await movements(db, business, from, today);
  const open: ListedBatch[] = [];
  for (let day = today; day >= from; day = addDays(day, -1)) {
    const { sales, backs } = ofDay(ours, business, day);
    if (sales.length + backs.length > 0)
      open.push({ day, sums: batchSums(sales, backs), differences: [], settledBy: null, checkedAt: null });
  }
  return open;
}

export type BatchLine = {
  readonly at: Date;
  readonly payment: PaymentRow;
  /** A sale, or what was given back of one; minor units, negative where it was given back. */
  readonly back: 'refund' | 'void' | null;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
};

export type BatchSheet = {
  readonly business: Business;
  readonly batch: Omit<ListedBatch, 'checkedAt'> & Pick<DayBatch, 'settledWords'> & { readonly checkedAt: Date | null };
  readonly lines: readonly BatchLine[];
  /** The payments that differences are about, by id, where there are such here. */
  readonly about: ReadonlyMap<string, PaymentRow>;
};

/** A day's batch with everything in it. @throws Refusal `not-found` for what is no day, or one without any movement */
export const batchSheet = desk('see').run(async (ctx, day: string): Promise<BatchSheet> => {
  if (!isCalendarDate(day)) throw new Refusal('not-found');
  return ctx.read(async (db) => {
    const business = await businessById(db);
    const kept = await dayBatch(db, day);
    const { sales, backs } = await movements(db, business, day, day);
    if (!kept && sales.length + backs.length === 0) throw new Refusal('not-found');
    const ids = [...sales, ...backs].map(({ paymentId }) => paymentId);
    const rows = new Map((await paymentRowsOf(db, ids)).map((row) => [row.id, row]));
    const lines: BatchLine[] = [
      ...sales.map(({ at, paymentId, amountMinor, feeMinor }) => ({
        at,
        payment: found(rows.get(paymentId)),
        back: null,
        amountMinor,
        feeMinor,
      })),
      ...backs.map(({ at, paymentId, kind, amountMinor, feeBackMinor }) => ({
        at,
        payment: found(rows.get(paymentId)),
        back: kind,
        amountMinor: -amountMinor,
        feeMinor: -feeBackMinor,
      })),
    ];
    const about = new Map<string, PaymentRow>();
    for (const { paymentId } of kept?.differences ?? []) {
      const row = UUID.test(paymentId) ? await paymentRow(db, paymentId) : null;
      if (row) about.set(paymentId, row);
    }
    const open = { day, sums: batchSums(sales, backs), differences: [], settledBy: null, settledWords: '' };
    return {
      business,
      batch: kept ?? { ...open, checkedAt: null },
      lines: lines.sort((a, b) => a.at.getTime() - b.at.getTime()),
      about,
    };
  });
});

/** The day's movements as CSV, for other books. */
export const batchCsv = desk('see').run(async (ctx, day: string): Promise<string> => {
  const { lines, business } = await batchSheet(ctx.actor, day);
  return csvText(
    ['day', 'at', 'kind', 'customer', 'for', 'channel', 'card', 'amount', 'fee', 'net', 'currency', 'receipt'],
    lines.map(({ at, payment, back, amountMinor, feeMinor }) => {
      const digits = minorDigits(payment.currency);
      return [
        dateInZone(at, business.zone),
        at.toISOString(),
        back ?? 'sale',
        payment.customer,
        payment.subject,
        payment.channel,
        `${payment.cardScheme ?? ''} ${payment.cardLast4 ?? ''}`.trim(),
        decimalText(amountMinor, digits),
        decimalText(feeMinor, digits),
        decimalText(amountMinor - feeMinor, digits),
        payment.currency,
        payment.receiptNumber ?? '',
      ];
    }),
  );
});

/** Notes that somebody has looked into a day's differences, and what was found. */
export const settleDifferences = desk('ask').run(async (ctx, day: string, words: string): Promise<void> => {
  if (!isCalendarDate(day)) throw new Refusal('not-found');
  await ctx.write(async (tx) => {
    if ((await settleBatch(tx, day, ctx.name, words)) === 0) throw new Refusal('not-found');
  });
});

import { addDays, type CalendarDate, daysBetween, isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import { minorDigits } from '@/core/money/currency';
import { decimalText } from '@/core/money/decimal';
import {
  type BatchBack,
  type BatchDifference,
  type BatchSale,
  batchDifferences,
  batchSums,
} from '@/core/payment/day-batch';
import { type Business, businessById } from '@/db/businesses';
import {
  backsBetween,
  businessesToClose,
  closedTo,
  type DayBatch,
  dayBatch,
  dayBatches,
  firstSaleAt,
  keepBatch,
  knownMovements,
  salesBetween,
  settleBatch,
  updateClosedTo,
} from '@/db/day-batches';
import { announce } from '@/db/jobs';
import { type PaymentRow, paymentRow, paymentRowsOf } from '@/db/payments';
import type { Actor } from '@/db/people';
import type { Db } from '@/db/pool';
import { inBusiness, outsideBusiness, readBusiness } from '@/db/transaction';
import { csvText } from '@/documents/csv/write';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { Refusal } from './refusal';
import { saleKey } from './take-payment';

export type { DayBatch };

/** So many days are closed at once, where many were missed. */
const AT_ONCE = 31;
/** A day is closed so long after midnight, when its last payments are written down. */
const GRACE_MS = 15 * 60_000;
const PAGE = 40;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

type Movements = {
  readonly sales: readonly (BatchSale & { readonly at: Date })[];
  readonly backs: readonly (BatchBack & { readonly at: Date })[];
};

const midnight = ({ zone }: Business, day: CalendarDate): Date => instantInZone(day, '00:00', zone);

/** What moved at the processor from one day to another, both included. */
async function movements(db: Db, business: Business, from: CalendarDate, to: CalendarDate): Promise<Movements> {
  const [begins, ends] = [midnight(business, from), midnight(business, addDays(to, 1))];
  return {
    sales: await salesBetween(db, business.id, begins, ends),
    backs: await backsBetween(db, business.id, begins, ends),
  };
}

const ofDay = ({ sales, backs }: Movements, { zone }: Business, day: CalendarDate): Movements => {
  const isDay = ({ at }: { at: Date }) => dateInZone(at, zone) === day;
  return { sales: sales.filter(isDay), backs: backs.filter(isDay) };
};

/** Asks the processor for its book of these days and compares; null where it does not answer. */
async function compared(
  business: Business,
  from: CalendarDate,
  to: CalendarDate,
  ours: Movements,
): Promise<((day: CalendarDate) => BatchDifference[]) | null> {
  const { cards } = services();
  const keys = [...ours.sales, ...ours.backs].map(({ paymentId }) => saleKey(business.id, paymentId));
  const theirs = await cards.book({
    prefix: `${business.id}.`,
    from: midnight(business, from),
    to: midnight(business, addDays(to, 1)),
    keys: [...new Set(keys)],
  });
  if (!theirs) return null;
  const ids = theirs.flatMap(({ paymentId, backs }) => [paymentId, ...backs.map(({ refundId }) => refundId)]);
  const known = await readBusiness(business.id, (db) =>
    knownMovements(
      db,
      business.id,
      ids.filter((id) => UUID.test(id)),
    ),
  );
  return (day) =>
    batchDifferences(ofDay(ours, business, day), theirs, known, (at) => dateInZone(at, business.zone) === day);
}

/**
 * Closes every day that is over: its sums are written down and compared with the processor's own book. A day is closed once,
 * in order; while the processor does not answer, it waits.
 */
export async function closeDays(businessId: string, now: Date): Promise<void> {
  const over = new Date(now.getTime() - GRACE_MS);
  for (;;) {
    const span = await readBusiness(businessId, async (db) => {
      const business = await businessById(db, businessId);
      const yesterday = addDays(dateInZone(over, business.zone), -1);
      const closed = await closedTo(db, businessId);
      const first = closed ? null : await firstSaleAt(db, businessId);
      const from = closed ? addDays(closed, 1) : first ? dateInZone(first, business.zone) : yesterday;
      const to = daysBetween(from, yesterday) >= AT_ONCE ? addDays(from, AT_ONCE - 1) : yesterday;
      return from > to
        ? null
        : { business, from, to, more: to < yesterday, ours: await movements(db, business, from, to) };
    });
    if (!span) return;
    const { business, from, to, ours } = span;
    const differences = await compared(business, from, to, ours);
    if (!differences) return;
    await inBusiness(businessId, async (tx) => {
      // Somebody else may have closed them meanwhile.
      const closed = await closedTo(tx, businessId);
      if (closed && closed >= from) return;
      for (let day = from; day <= to; day = addDays(day, 1)) {
        const { sales, backs } = ofDay(ours, business, day);
        const differing = differences(day);
        if (sales.length + backs.length + differing.length === 0) continue;
        const sums = batchSums(sales, backs);
        await keepBatch(tx, businessId, { day, sums, differences: differing, checkedAt: now });
      }
      await updateClosedTo(tx, businessId, to);
      await announce(tx, businessId);
    });
    if (!span.more) return;
  }
}

/** Closes the days of all businesses. @param onTrouble hears of one whose closing failed; the others go on */
export async function closeAllDays(now: Date, onTrouble: (businessId: string, error: unknown) => void): Promise<void> {
  const over = new Date(now.getTime() - GRACE_MS);
  for (const businessId of await outsideBusiness((db) => businessesToClose(db, over)))
    await closeDays(businessId, now).catch((error: unknown) => onTrouble(businessId, error));
}

/** A day's batch as the list shows it; `checkedAt` is null for the day that is not closed yet. */
export type ListedBatch = Pick<DayBatch, 'day' | 'sums' | 'differences' | 'settledBy'> & {
  readonly checkedAt: Date | null;
};

/** Batches day by day, latest first; before the closed ones those that are still open. */
export async function batchList(
  actor: Actor,
  before: CalendarDate | null,
): Promise<{ business: Business; today: CalendarDate; rows: ListedBatch[]; next: CalendarDate | null }> {
  requireRight(actor, 'read');
  const now = await services().clock.now();
  return readBusiness(actor.businessId, async (db) => {
    const business = await businessById(db, actor.businessId);
    const today = dateInZone(now, business.zone);
    const closed = await dayBatches(db, actor.businessId, PAGE + 1, before);
    const shown = closed.slice(0, PAGE);
    const open = before ? [] : await openBatches(db, business, today);
    const next = closed.length > PAGE ? (shown.at(-1)?.day ?? null) : null;
    return { business, today, rows: [...open, ...shown], next };
  });
}

async function openBatches(db: Db, business: Business, today: CalendarDate): Promise<ListedBatch[]> {
  const closed = await closedTo(db, business.id);
  const first = closed ? null : await firstSaleAt(db, business.id);
  const since = closed ? addDays(closed, 1) : first ? dateInZone(first, business.zone) : today;
  const from = daysBetween(since, today) > AT_ONCE ? addDays(today, -AT_ONCE) : since;
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
export async function batchSheet(actor: Actor, day: string): Promise<BatchSheet> {
  requireRight(actor, 'read');
  if (!isCalendarDate(day)) throw new Refusal('not-found');
  const { businessId } = actor;
  return readBusiness(businessId, async (db) => {
    const business = await businessById(db, businessId);
    const kept = await dayBatch(db, businessId, day);
    const { sales, backs } = await movements(db, business, day, day);
    if (!kept && sales.length + backs.length === 0) throw new Refusal('not-found');
    const ids = [...sales, ...backs].map(({ paymentId }) => paymentId);
    const rows = new Map((await paymentRowsOf(db, businessId, ids)).map((row) => [row.id, row]));
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
      const row = UUID.test(paymentId) ? await paymentRow(db, businessId, paymentId) : null;
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
}

/** The day's movements as CSV, for other books. */
export async function batchCsv(actor: Actor, day: string): Promise<string> {
  const { lines, business } = await batchSheet(actor, day);
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
}

/** Compares a closed day with the processor's book once more. @throws Refusal `not-found`, `processor-silent` */
export async function compareAgain(actor: Actor, day: string): Promise<{ differences: number }> {
  requireRight(actor, 'ask');
  if (!isCalendarDate(day)) throw new Refusal('not-found');
  const { businessId } = actor;
  const now = await services().clock.now();
  const { business, kept, ours } = await readBusiness(businessId, async (db) => {
    const own = await businessById(db, businessId);
    return {
      business: own,
      kept: found(await dayBatch(db, businessId, day)),
      ours: await movements(db, own, day, day),
    };
  });
  const differences = (await compared(business, day, day, ours))?.(day);
  if (!differences) throw new Refusal('processor-silent');
  await inBusiness(businessId, async (tx) => {
    await keepBatch(tx, businessId, { day, sums: kept.sums, differences, checkedAt: now });
    await announce(tx, businessId);
  });
  return { differences: differences.length };
}

/** Notes that somebody has looked into a day's differences, and what was found. */
export async function settleDifferences(actor: Actor, day: string, words: string): Promise<void> {
  requireRight(actor, 'ask');
  if (!isCalendarDate(day)) throw new Refusal('not-found');
  await inBusiness(actor.businessId, async (tx) => {
    if ((await settleBatch(tx, actor.businessId, day, actor.name, words)) === 0) throw new Refusal('not-found');
    await announce(tx, actor.businessId);
  });
}

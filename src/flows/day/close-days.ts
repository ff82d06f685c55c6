import { addDays, type CalendarDate, daysBetween, isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { type BatchDifference, batchDifferences, batchSums } from '@/core/payment/day-batch';
import { isUuid } from '@/core/uuid';
import { type Business, businessById } from '@/db/businesses';
import {
  closedTo,
  dayBatch,
  firstSaleAt,
  keepBatch,
  knownDisputeMoves,
  knownMovements,
  updateClosedTo,
} from '@/db/day-batches';
import { lookForDisputes } from '@/flows/dispute/hear-disputes';
import { type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { lookForDebits } from '@/flows/payment/hear-debits';
import { saleKey } from '@/flows/payment/take-payment';
import { type Movements, midnight, movements, ofDay } from '@/flows/way/day-movements';
import { services } from '@/outside/services';

/** So many days are closed at once, where many were missed. */
const AT_ONCE = 31;
/** A day is closed so long after midnight, when its last payments are written down. */
const GRACE_MS = 15 * 60_000;

/** Asks the processor for its book of these days and compares; null where it does not answer. */
async function compared(
  ctx: Context,
  business: Business,
  { from, to }: { readonly from: CalendarDate; readonly to: CalendarDate },
  ours: Movements,
): Promise<((day: CalendarDate) => BatchDifference[]) | null> {
  const { cards } = services();
  const keys = [...ours.sales, ...ours.backs, ...ours.disputes].map(({ paymentId }) => saleKey(business.id, paymentId));
  const theirs = await cards.book({
    prefix: `${business.id}.`,
    from: midnight(business, from),
    to: midnight(business, addDays(to, 1)),
    keys: [...new Set(keys)],
  });
  if (!theirs) return null;
  const ids = theirs.flatMap(({ paymentId, backs }) => [paymentId, ...backs.map(({ refundId }) => refundId)]);
  const uuids = ids.filter((id) => isUuid(id));
  const known = await ctx.read(
    async (db) => new Set([...(await knownMovements(db, uuids)), ...(await knownDisputeMoves(db, uuids))]),
  );
  return (day) =>
    batchDifferences(ofDay(ours, business, day), theirs, known, (at) => dateInZone(at, business.zone) === day);
}

/**
 * Closes every day that is over: its sums are written down and compared with the processor's own book. A day is closed once,
 * in order; while the processor does not answer, it waits.
 */
export async function closeDays(ctx: Context): Promise<void> {
  // What was disputed or came back unheard counts for the day on which it is heard of; once a day it is asked for.
  await lookForDisputes(ctx);
  await lookForDebits(ctx);
  const over = new Date(ctx.now.getTime() - GRACE_MS);
  for (;;) {
    const span = await ctx.read(async (db) => {
      const business = await businessById(db);
      const yesterday = addDays(dateInZone(over, business.zone), -1);
      const closed = await closedTo(db);
      const first = closed ? null : await firstSaleAt(db);
      const from = closed ? addDays(closed, 1) : first ? dateInZone(first, business.zone) : yesterday;
      const to = daysBetween(from, yesterday) >= AT_ONCE ? addDays(from, AT_ONCE - 1) : yesterday;
      return from > to
        ? null
        : { business, from, to, more: to < yesterday, ours: await movements(db, business, from, to) };
    });
    if (!span) return;
    const { business, from, to, ours } = span;
    const differences = await compared(ctx, business, span, ours);
    if (!differences) return;
    await ctx.write(async (tx) => {
      // Somebody else may have closed them meanwhile.
      const closed = await closedTo(tx);
      if (closed && closed >= from) return;
      for (let day = from; day <= to; day = addDays(day, 1)) {
        const { sales, backs, disputes } = ofDay(ours, business, day);
        const differing = differences(day);
        if (sales.length + backs.length + disputes.length + differing.length === 0) continue;
        const sums = batchSums(sales, backs, disputes);
        await keepBatch(tx, { day, sums, differences: differing, checkedAt: ctx.now });
      }
      await updateClosedTo(tx, to);
    });
    if (!span.more) return;
  }
}

/** Compares a closed day with the processor's book once more. @throws Refusal `not-found`, `processor-silent` */
export const compareAgain = desk('ask').run(async (ctx, day: string): Promise<{ differences: number }> => {
  if (!isCalendarDate(day)) throw new Refusal('not-found');
  const { business, kept, ours } = await ctx.read(async (db) => {
    const own = await businessById(db);
    return {
      business: own,
      kept: found(await dayBatch(db, day)),
      ours: await movements(db, own, day, day),
    };
  });
  const differences = (await compared(ctx, business, { from: day, to: day }, ours))?.(day);
  if (!differences) throw new Refusal('processor-silent');
  await ctx.write(async (tx) => {
    await keepBatch(tx, { day, sums: kept.sums, differences, checkedAt: ctx.now });
  });
  return { differences: differences.length };
});

import { addDays, type CalendarDate, daysBetween, isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { type BatchDifference, batchDifferences, batchSums } from '@/core/payment/day-batch';
import { type Business, businessById } from '@/db/businesses';
import {
  businessesToClose,
  closedTo,
  dayBatch,
  firstSaleAt,
  keepBatch,
  knownMovements,
  updateClosedTo,
} from '@/db/day-batches';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import { inBusiness, outsideBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { type Movements, midnight, movements, ofDay } from './day-movements';
import { Refusal } from './refusal';
import { saleKey } from './take-payment';

/** So many days are closed at once, where many were missed. */
const AT_ONCE = 31;
/** A day is closed so long after midnight, when its last payments are written down. */
const GRACE_MS = 15 * 60_000;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

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

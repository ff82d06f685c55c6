import { addDays, type CalendarDate, monthEnd } from '@/core/dates/calendar-date';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import { byCurrency } from '@/core/money/by-currency';
import { type Business, businessById } from '@/db/businesses';
import { type DaySum, receivedByDay } from '@/db/day-sums';
import { openOrRefused, type PaymentRow, receivedByWay, type WaySum } from '@/db/payments';
import type { Db } from '@/db/pool';
import { desk } from '@/flows/door/operation';

const OPEN_DAYS = 14;
const OPEN_SHOWN = 8;

/** What came in in a span, in each currency, the business's own first; minor units. */
export type SpanSum = {
  readonly span: 'today' | 'yesterday' | 'this-month' | 'last-month';
  readonly sums: readonly { readonly currency: string; readonly count: number; readonly minor: bigint }[];
};

/** What helps while no payment is chosen: what came in lately, by which ways, and what is open or was refused. */
export type PaymentOverview = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly spans: readonly SpanSum[];
  readonly ways: readonly WaySum[];
  readonly open: readonly PaymentRow[];
};

function sumsOf(days: readonly DaySum[], own: string, within: (on: CalendarDate) => boolean): SpanSum['sums'] {
  const some = byCurrency(
    days.filter(({ on }) => within(on)),
    own,
  );
  return [[own, some.own] as const, ...some.others].flatMap(([currency, list]) => {
    const minor = list.reduce((sum, one) => sum + one.minor, 0n);
    const count = list.reduce((sum, one) => sum + one.count, 0);
    return currency === own || count > 0 ? [{ currency, count, minor }] : [];
  });
}

/** The business's own currency first, then by currency; the largest first in each. */
function inOrder(ways: readonly WaySum[], own: string): WaySum[] {
  const { own: first, others } = byCurrency(ways, own);
  return [...first, ...[...others.values()].flat()];
}

type Takings = Pick<PaymentOverview, 'business' | 'today' | 'spans' | 'ways'>;

async function takingsOf(db: Db): Promise<Takings> {
  const business = await businessById(db);
  const { zone, currency } = business;
  const today = dateInZone(db.now, zone);
  const month = `${today.slice(0, 7)}-01` as CalendarDate;
  const before = `${addDays(month, -1).slice(0, 7)}-01` as CalendarDate;
  const days = await receivedByDay(db, before, today);
  const midnight = (day: CalendarDate) => instantInZone(day, '00:00', zone);
  return {
    business,
    today,
    spans: [
      { span: 'today', sums: sumsOf(days, currency, (on) => on === today) },
      { span: 'yesterday', sums: sumsOf(days, currency, (on) => on === addDays(today, -1)) },
      { span: 'this-month', sums: sumsOf(days, currency, (on) => on >= month) },
      { span: 'last-month', sums: sumsOf(days, currency, (on) => on <= monthEnd(before)) },
    ],
    ways: inOrder(await receivedByWay(db, midnight(month), midnight(addDays(today, 1))), currency),
  };
}

/** What came in, by day and by way: nobody's name. */
export const takings = desk('sums').read((db): Promise<Takings> => takingsOf(db));

export const paymentOverview = desk('see').read(
  async (db): Promise<PaymentOverview> => ({
    ...(await takingsOf(db)),
    open: await openOrRefused(db, new Date(db.now.getTime() - OPEN_DAYS * 86_400_000), OPEN_SHOWN),
  }),
);

import type { CalendarDate } from '@/core/dates/calendar-date';
import { OPEN_STATUSES } from '@/core/invoice/state';
import { WITHOUT_MONEY } from '@/core/payment/methods';
import type { Db } from './pool';
import { many, oneOf, sql } from './sql';

/** What a day holds, in one currency; `minor` in minor units. */
export type DaySum = {
  readonly on: CalendarDate;
  readonly currency: string;
  readonly count: number;
  readonly minor: bigint;
};

/** Everything open, by due date and currency, the late days included. */
export const dueByDay = (db: Db): Promise<DaySum[]> =>
  many(
    db,
    sql`select due_on as "on", currency, sum(invoices)::int as count, sum(due_minor)::bigint as minor from invoice_sums
        where business_id = ${db.businessId} and status in ${oneOf(OPEN_STATUSES)} and due_minor > 0
        group by currency, due_on order by currency, due_on`,
  );

/** What came in on each day of a span, ends included. */
export const receivedByDay = (db: Db, from: CalendarDate, to: CalendarDate): Promise<DaySum[]> =>
  many(
    db,
    sql`select day as "on", currency, sum(payments)::int as count, sum(paid_minor)::bigint as minor from register_sums
        where business_id = ${db.businessId} and method not in ${oneOf(WITHOUT_MONEY)} and day between ${from} and ${to} group by currency, day order by currency, day`,
  );

/** How many invoices stand where, in each currency; what is open on each due date. `on` is null for paid and cancelled. */
export type StatusSum = {
  readonly status: 'sent' | 'seen' | 'part' | 'paid' | 'cancelled';
  readonly currency: string;
  readonly on: CalendarDate | null;
  readonly count: number;
  readonly totalMinor: bigint;
  readonly dueMinor: bigint;
};

export const statusSums = (db: Db): Promise<StatusSum[]> =>
  many(
    db,
    sql`select status, currency, case when isfinite(due_on) then due_on end as "on", invoices as count,
          total_minor as "totalMinor", due_minor as "dueMinor"
        from invoice_sums where business_id = ${db.businessId} and invoices > 0`,
  );

import type { CalendarDate } from '@/core/dates/calendar-date';
import { OPEN_STATUSES } from '@/core/invoice/state';
import type { Db, Tx } from './pool';
import { many, oneOf, run, sql } from './sql';

/** What a day holds, in one currency; `minor` in minor units. */
export type DaySum = {
  readonly on: CalendarDate;
  readonly currency: string;
  readonly count: number;
  readonly minor: bigint;
};

/** Adds payments to what came in on a day. */
export const addReceived = (
  tx: Tx,
  { currency, on, count, minor }: Omit<DaySum, 'count'> & { readonly count?: number },
): Promise<number> =>
  run(
    tx,
    sql`insert into received_by_day as kept (business_id, currency, received_on, payments, amount_minor)
        values (${tx.businessId}, ${currency}, ${on}, ${count ?? 1}, ${minor})
        on conflict (business_id, currency, received_on) do update
        set payments = kept.payments + excluded.payments, amount_minor = kept.amount_minor + excluded.amount_minor`,
  );

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
    sql`select received_on as "on", currency, payments as count, amount_minor as minor from received_by_day
        where business_id = ${db.businessId} and received_on between ${from} and ${to} order by currency, received_on`,
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

import type { CarrierStatement } from '@/core/carrier/statement';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import type { Db, Tx } from './pool';
import { many, NONE, run, sql } from './sql';

/** The month at the carrier that an instant belongs to, by its first day: the carrier counts in UTC. */
export const carrierMonth = (at: Date): CalendarDate => `${dateInZone(at, 'UTC').slice(0, 7)}-01` as CalendarDate;

/** A month's statement: awaited until it is read. `left` are entries at which somebody looked, and left it at that. */
export type KeptStatement = {
  readonly month: CalendarDate;
  readonly currency: string;
  readonly statement: CarrierStatement | null;
  readonly readAt: Date | null;
  readonly byName: string;
  readonly left: readonly string[];
  /** How many entries differ, and nobody decided on them yet. */
  readonly open: number;
};

const COLUMNS = sql`month, currency, statement, read_at as "readAt", by_name as "byName", left_as_is as "left", open`;

/** A statement of this month will come: it is fetched on the second day after its end. */
export const awaitStatement = (tx: Tx, month: CalendarDate, currency: string): Promise<number> =>
  run(
    tx,
    sql`insert into carrier_statements (business_id, month, currency, act_at)
        values (${tx.businessId}, ${month}, ${currency}, (${month}::date + interval '1 month 1 day 6 hours') at time zone 'UTC')
        on conflict (business_id, month) do nothing`,
  );

/** The months of which there is or will be a statement, the latest first. */
export const carrierMonths = (db: Db, limit: number): Promise<KeptStatement[]> =>
  many(
    db,
    sql`select ${COLUMNS} from carrier_statements where business_id = ${db.businessId} order by month desc limit ${limit}`,
  );

/** @param hold nobody else decides on it until the transaction ends */
export const carrierStatement = async (db: Db, month: CalendarDate, hold = false): Promise<KeptStatement | null> =>
  (
    await many<KeptStatement>(
      db,
      sql`select ${COLUMNS} from carrier_statements where business_id = ${db.businessId} and month = ${month} ${hold ? sql`for update` : NONE}`,
    )
  )[0] ?? null;

/** Months that are to be fetched by now, or looked at once more. */
export const dueStatements = (db: Db): Promise<{ month: CalendarDate }[]> =>
  many(
    db,
    sql`select month from carrier_statements where business_id = ${db.businessId} and act_at <= ${db.now} order by month limit 12`,
  );

/** Keeps a month's statement in place of what was read before. @param actAt when it is fetched once more; null for not */
export const keepStatement = (
  tx: Tx,
  statement: CarrierStatement,
  { currency, byName, actAt }: { readonly currency: string; readonly byName: string; readonly actAt: Date | null },
): Promise<number> =>
  run(
    tx,
    sql`insert into carrier_statements (business_id, month, currency, statement, read_at, by_name, act_at)
        values (${tx.businessId}, ${statement.month}, ${currency}, ${JSON.stringify(statement)}, ${tx.now}, ${byName}, ${actAt})
        on conflict (business_id, month) do update set statement = excluded.statement, read_at = excluded.read_at,
          by_name = excluded.by_name, act_at = excluded.act_at`,
  );

/** How many of its entries are open, and which were left as they are. */
export const updateCompared = (
  tx: Tx,
  month: CalendarDate,
  { left, open, actAt }: { readonly left: readonly string[]; readonly open: number; readonly actAt: Date | null },
): Promise<number> =>
  run(
    tx,
    sql`update carrier_statements set left_as_is = ${[...left]}::text[], open = ${open}, act_at = ${actAt}
        where business_id = ${tx.businessId} and month = ${month}`,
  );

/** It is asked for again at an instant: the carrier did not answer. */
export const updateAwaited = (tx: Tx, month: CalendarDate, actAt: Date): Promise<number> =>
  run(
    tx,
    sql`update carrier_statements set act_at = ${actAt} where business_id = ${tx.businessId} and month = ${month}`,
  );

/** Months in which something differs that nobody decided on. */
export const differingStatements = (db: Db): Promise<{ month: CalendarDate; open: number }[]> =>
  many(
    db,
    sql`select month, open from carrier_statements where business_id = ${db.businessId} and open > 0 order by month limit 12`,
  );

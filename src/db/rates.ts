import type { CalendarDate } from '@/core/dates/calendar-date';
import type { RateTable } from '@/core/money/rates';
import type { Db, Tx } from './pool';
import { many, run, sql } from './sql';

/** A day's rates with where they came from. */
export type KeptRates = RateTable & { readonly source: string };

/** The latest rates on or before a day; null where none were imported. */
export async function ratesOn(db: Db, on: CalendarDate): Promise<KeptRates | null> {
  const rows = await many<{ on: CalendarDate; currency: string; perEuro: string; source: string }>(
    db,
    sql`select rated_on as "on", currency, trim_scale(per_euro)::text as "perEuro", source from rates
        where business_id = ${db.businessId} and rated_on = (
          select max(rated_on) from rates where business_id = ${db.businessId} and rated_on <= ${on})`,
  );
  const [first] = rows;
  if (!first) return null;
  const perEuro = Object.fromEntries(rows.map((row) => [row.currency, row.perEuro]));
  return { on: first.on, source: first.source, perEuro };
}

/** Keeps a day's rates; a day imported again takes the newer ones. */
export const keepRates = (tx: Tx, { on, perEuro }: RateTable, source: string): Promise<number> =>
  run(
    tx,
    sql`insert into rates (business_id, rated_on, currency, per_euro, source)
        select ${tx.businessId}, ${on}, currency, rate::numeric, ${source}
        from unnest(${Object.keys(perEuro)}::text[], ${Object.values(perEuro)}::text[]) as given (currency, rate)
        on conflict (business_id, rated_on, currency) do update set per_euro = excluded.per_euro, source = excluded.source`,
  );

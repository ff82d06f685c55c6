import { correctionKey, type OwnMove } from '@/core/carrier/statement';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { jsonMinor } from '@/core/money/money';
import { awaitStatement, carrierMonth } from './carrier-statements';
import type { Db, Tx } from './pool';
import { many, one, records, run, sql } from './sql';

/** What moves the balance at the carrier; minor units, what leaves it is below 0. `key` is what the carrier knows it by. */
export type CarrierMove = {
  readonly id: string;
  readonly key: string;
  readonly kind: 'top-up' | 'label' | 'void' | 'claim' | 'correction';
  readonly state: 'asked' | 'done' | 'refused';
  readonly parcelId: string | null;
  readonly currency: string;
  readonly minor: bigint;
  readonly at: Date;
  readonly byName: string;
};

export type NewMove = Omit<CarrierMove, 'at'>;

/** Notes moves, each key once, and that the carrier's statement of their month is to be looked at; returns how many were new. */
export async function insertMoves(tx: Tx, moves: readonly NewMove[]): Promise<number> {
  const [first] = moves;
  if (first) await awaitStatement(tx, carrierMonth(tx.now), first.currency);
  return run(
    tx,
    sql`insert into carrier_moves (business_id, id, key, kind, state, parcel_id, currency, minor, at, by_name)
        select ${tx.businessId}, id, key, kind, state, "parcelId", currency, minor, ${tx.now}, "byName"
        from jsonb_to_recordset(${records(moves)}::jsonb) as given (id uuid, key text, kind text, state text, "parcelId" uuid,
          currency text, minor bigint, "byName" text)
        on conflict (business_id, key) do nothing`,
  );
}

const COLUMNS = sql`id, key, kind, state, parcel_id as "parcelId", currency, minor, at, by_name as "byName"`;

/** A move by its key; held until the transaction ends. */
export const lockedMove = async (tx: Tx, key: string): Promise<CarrierMove | null> =>
  (
    await many<CarrierMove>(
      tx,
      sql`select ${COLUMNS} from carrier_moves where business_id = ${tx.businessId} and key = ${key} for update`,
    )
  )[0] ?? null;

export const updateMoveState = (tx: Tx, key: string, state: CarrierMove['state']): Promise<number> =>
  run(tx, sql`update carrier_moves set state = ${state} where business_id = ${tx.businessId} and key = ${key}`);

/** What the carrier should hold of ours by all that went through, in minor units. */
export const carrierBalance = async (db: Db): Promise<bigint> =>
  (
    await one<{ minor: bigint }>(
      db,
      sql`select coalesce(sum(minor), 0)::bigint as minor from carrier_moves where business_id = ${db.businessId} and state = 'done'`,
    )
  ).minor;

/** The latest moves, and those that are not known to have gone through. */
export const latestMoves = (db: Db, limit: number): Promise<CarrierMove[]> =>
  many(
    db,
    sql`select ${COLUMNS} from carrier_moves where business_id = ${db.businessId} order by at desc, id limit ${limit}`,
  );

/** What moved in a month and on the days about it, as the carrier knows it, with the numbers of its parcels; and what was booked for that month. */
export async function movesAbout(db: Db, month: CalendarDate): Promise<OwnMove[]> {
  const rows = await many<Omit<OwnMove, 'minor'> & { minor: bigint }>(
    db,
    sql`select m.key, m.kind, coalesce(p.number, r.number, '') as number, (m.at at time zone 'UTC')::date as on, m.minor
        from carrier_moves m
          left join parcels p on p.business_id = m.business_id and p.id = m.parcel_id
          left join returns r on r.business_id = m.business_id and m.key = 'return:' || r.id
        where m.business_id = ${db.businessId} and m.state = 'done'
          and (m.kind <> 'correction' and m.at >= (${month}::date - 2) and m.at < (${month}::date + interval '1 month 2 days')
            or m.kind = 'correction' and m.key like ${`${correctionKey(month, '')}%`})
        order by m.at, m.id`,
  );
  return rows.map((row) => ({ ...row, minor: jsonMinor(row.minor) }));
}

/** What the balance was by our books before a month began, in minor units: what was booked afterwards counts in the month that it was for. */
export const balanceBefore = async (db: Db, month: CalendarDate): Promise<bigint> =>
  (
    await one<{ minor: bigint }>(
      db,
      sql`select coalesce(sum(minor), 0)::bigint as minor from carrier_moves where business_id = ${db.businessId} and state = 'done'
            and case when kind = 'correction' then split_part(key, ':', 2) < ${month.slice(0, 7)}
              else at < (${month}::date)::timestamp at time zone 'UTC' end`,
    )
  ).minor;

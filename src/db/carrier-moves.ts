import type { Db, Tx } from './pool';
import { many, one, records, run, sql } from './sql';

/** What moves the balance at the carrier; minor units, what leaves it is below 0. `key` is what the carrier knows it by. */
export type CarrierMove = {
  readonly id: string;
  readonly key: string;
  readonly kind: 'top-up' | 'label' | 'void' | 'claim';
  readonly state: 'asked' | 'done' | 'refused';
  readonly parcelId: string | null;
  readonly currency: string;
  readonly minor: bigint;
  readonly at: Date;
  readonly byName: string;
};

export type NewMove = Omit<CarrierMove, 'at'>;

/** Notes moves, each key once; returns how many were new. */
export const insertMoves = (tx: Tx, moves: readonly NewMove[]): Promise<number> =>
  run(
    tx,
    sql`insert into carrier_moves (business_id, id, key, kind, state, parcel_id, currency, minor, at, by_name)
        select ${tx.businessId}, id, key, kind, state, "parcelId", currency, minor, ${tx.now}, "byName"
        from jsonb_to_recordset(${records(moves)}::jsonb) as given (id uuid, key text, kind text, state text, "parcelId" uuid,
          currency text, minor bigint, "byName" text)
        on conflict (business_id, key) do nothing`,
  );

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

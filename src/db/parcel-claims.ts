import type { ClaimState, ClaimWhy } from '@/core/parcel/claim';
import type { Db, Tx } from './pool';
import { many, most, NONE, run, sql } from './sql';

/** What is asked of the carrier for a parcel; minor units of `currency`. */
export type ParcelClaim = {
  readonly parcelId: string;
  readonly key: string;
  readonly tries: number;
  readonly why: ClaimWhy;
  readonly state: ClaimState;
  readonly currency: string;
  readonly askedMinor: bigint;
  readonly paidMinor: bigint | null;
  readonly words: string;
  readonly byName: string;
  readonly madeAt: Date;
  readonly answeredAt: Date | null;
};

const COLUMNS = sql`parcel_id as "parcelId", key, tries, why, state, currency, asked_minor as "askedMinor", paid_minor as "paidMinor",
  words, by_name as "byName", made_at as "madeAt", answered_at as "answeredAt"`;

/** The claim for a parcel; null where none was made. @param hold nobody else changes it until the transaction ends */
export const claimOf = async (db: Db, parcelId: string, hold = false): Promise<ParcelClaim | null> =>
  (
    await many<ParcelClaim>(
      db,
      sql`select ${COLUMNS} from parcel_claims where business_id = ${db.businessId} and parcel_id = ${parcelId} ${hold ? sql`for update` : NONE}`,
    )
  )[0] ?? null;

/** Writes a claim down, in place of one that was refused. */
export const keepClaim = (
  tx: Tx,
  claim: Pick<ParcelClaim, 'parcelId' | 'key' | 'tries' | 'why' | 'currency' | 'askedMinor' | 'byName'>,
): Promise<number> =>
  run(
    tx,
    sql`insert into parcel_claims (business_id, parcel_id, key, tries, why, state, currency, asked_minor, by_name, made_at, look_at)
        values (${tx.businessId}, ${claim.parcelId}, ${claim.key}, ${claim.tries}, ${claim.why}, 'asked', ${claim.currency},
          ${claim.askedMinor}, ${claim.byName}, ${tx.now}, ${tx.now})
        on conflict (business_id, parcel_id) do update set key = excluded.key, tries = excluded.tries, why = excluded.why, state = 'asked',
          asked_minor = excluded.asked_minor, paid_minor = null, words = '', by_name = excluded.by_name, made_at = excluded.made_at,
          answered_at = null, look_at = excluded.look_at
        where parcel_claims.state = 'refused'`,
  );

/** How a claim stands by what the carrier said. */
export const updateClaim = (
  tx: Tx,
  parcelId: string,
  {
    state,
    paidMinor,
    words,
    lookAt,
  }: Pick<ParcelClaim, 'state' | 'paidMinor' | 'words'> & { readonly lookAt: Date | null },
): Promise<number> =>
  run(
    tx,
    sql`update parcel_claims set state = ${state}, paid_minor = ${paidMinor}, words = ${words}, look_at = ${lookAt},
          answered_at = ${state === 'paid' || state === 'refused' ? tx.now : null}
        where business_id = ${tx.businessId} and parcel_id = ${parcelId}`,
  );

/** Claims that the carrier is asked about by now. */
export const dueClaims = (db: Db, limit: number): Promise<ParcelClaim[]> =>
  many(
    db,
    sql`select ${COLUMNS} from parcel_claims where business_id = ${db.businessId} and look_at <= ${db.now}
        order by look_at, parcel_id limit ${most(limit)}`,
  );

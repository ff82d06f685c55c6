import type { Db, Tx } from './pool';
import { many, maybeOne, run, sql } from './sql';

/** A card that the processor may be keeping and that is on no file yet, or no longer. */
export type CardClaim = {
  readonly key: string;
  readonly keptId: string | null;
  readonly paymentId: string | null;
  readonly state: 'open' | 'dropping';
};

const CLAIM = sql`key, kept_id as "keptId", payment_id as "paymentId", state`;

/** Claims a card; one under the same key stays as it is. */
export const insertClaim = (tx: Tx, claim: Omit<CardClaim, 'state'>): Promise<number> =>
  run(
    tx,
    sql`insert into card_claims (business_id, key, kept_id, payment_id, state, claimed_at)
        values (${tx.businessId}, ${claim.key}, ${claim.keptId}, ${claim.paymentId}, 'open', ${tx.now})
        on conflict (business_id, key) do nothing`,
  );

export const lockedClaim = (tx: Tx, key: string): Promise<CardClaim | null> =>
  maybeOne(tx, sql`select ${CLAIM} from card_claims where business_id = ${tx.businessId} and key = ${key} for update`);

/** Notes under which id the processor keeps what was claimed. */
export const noteKeptId = (tx: Tx, key: string, keptId: string): Promise<number> =>
  run(
    tx,
    sql`update card_claims set kept_id = ${keptId} where business_id = ${tx.businessId} and key = ${key} and state = 'open'`,
  );

/** From now on the card is being dropped: nobody puts it on file any more. */
export const markDropping = (tx: Tx, key: string, keptId: string | null): Promise<number> =>
  run(
    tx,
    sql`update card_claims set state = 'dropping', kept_id = ${keptId} where business_id = ${tx.businessId} and key = ${key}`,
  );

export const deleteClaim = (tx: Tx, key: string): Promise<number> =>
  run(tx, sql`delete from card_claims where business_id = ${tx.businessId} and key = ${key}`);

/** The card is on file now: its claims are done with. False where it is being dropped. */
export async function closeClaims(tx: Tx, keptId: string): Promise<boolean> {
  const claims = await many<CardClaim>(
    tx,
    sql`select ${CLAIM} from card_claims where business_id = ${tx.businessId} and kept_id = ${keptId} for update`,
  );
  if (claims.some(({ state }) => state === 'dropping')) return false;
  await run(
    tx,
    sql`delete from card_claims where business_id = ${tx.businessId} and kept_id = ${keptId} and state = 'open'`,
  );
  return true;
}

/** All that is claimed, for the proof. */
export const openClaims = (db: Db): Promise<CardClaim[]> =>
  many(db, sql`select ${CLAIM} from card_claims where business_id = ${db.businessId}`);

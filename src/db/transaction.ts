import type { PoolClient } from 'pg';
import { type Db, pool, type Tx } from './pool';

const ATTEMPTS = 12;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

// Broken by somebody else's insert after our snapshot was taken: run again, the row is then seen and answered for.
const RACES = new Set(['payments_attempt_unique', 'payments_one_pending', 'cards_kept_unique']);

function isConflict(error: unknown): boolean {
  if (typeof error !== 'object' || error === null || !('code' in error)) return false;
  if (error.code === '23505') return 'constraint' in error && RACES.has(String(error.constraint));
  return error.code === '40001' || error.code === '40P01';
}

const COMMIT_AND_PASS_ON = 'commit; select pg_advisory_unlock_all()';
const ROLLBACK_AND_PASS_ON = 'rollback; select pg_advisory_unlock_all()';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

type Manner = { readonly mode: string; readonly inTurn: boolean };

async function within<T>(
  businessId: string | null,
  { mode, inTurn }: Manner,
  work: (client: PoolClient) => Promise<T>,
): Promise<T> {
  if (businessId !== null && !UUID.test(businessId)) throw new Error('Not a business id');
  const client = await pool().connect();
  let broken: Error | undefined;
  const onError = (error: Error) => {
    broken = error; // unheard, it would end the process
  };
  client.on('error', onError);
  try {
    // Before the transaction: the snapshot must be younger than the turn.
    if (inTurn) await client.query('select pg_advisory_lock(hashtextextended($1, 0))', [businessId]);
    // One round trip; the id was checked to be a UUID, so it can stand in the text.
    const scope = businessId ? `; select set_config('dahlia.business_id', '${businessId}', true)` : '';
    await client.query(`begin isolation level ${mode}${scope}`);
    const result = await work(client);
    await client.query(inTurn ? COMMIT_AND_PASS_ON : 'commit');
    return result;
  } catch (error) {
    await client.query(inTurn ? ROLLBACK_AND_PASS_ON : 'rollback').catch(onError); // must not hide the error that led here
    throw error;
  } finally {
    client.off('error', onError);
    client.release(broken); // a broken connection is destroyed, not reused
  }
}

/**
 * Runs `work` in one transaction that sees and writes one business only; commits what it returns, rolls back if it throws.
 *
 * Serializable, so `work` is written as if it were alone; on a conflict it runs again. It must touch nothing but the
 * database: what the world should see (an e-mail) is enqueued as a job.
 */
export const inBusiness = <T>(businessId: string, work: (tx: Tx) => Promise<T>): Promise<T> =>
  writing(businessId, { mode: 'serializable', inTurn: false }, work);

/**
 * The same, one after the other within a business: for what takes a number or changes the day's sums, where all would
 * meet at the same few rows and most would have to run again.
 */
export const inBusinessInTurn = <T>(businessId: string, work: (tx: Tx) => Promise<T>): Promise<T> =>
  writing(businessId, { mode: 'serializable', inTurn: true }, work);

async function writing<T>(businessId: string, manner: Manner, work: (tx: Tx) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await within(businessId, manner, (client) =>
        work({ query: client.query.bind(client), inTransaction: true }),
      );
    } catch (error) {
      if (attempt === ATTEMPTS || !isConflict(error)) throw error;
      await pause(Math.random() * 8 * attempt);
    }
  }
}

/** Reads several things of one business as of one moment. */
export const readBusiness = <T>(businessId: string, work: (db: Db) => Promise<T>): Promise<T> =>
  within(businessId, { mode: 'repeatable read read only', inTurn: false }, work);

/** Outside any business: for the doors (sign-in, links) and for what belongs to none. */
export const outsideBusiness = <T>(work: (db: Db) => Promise<T>): Promise<T> => work(pool());

/** Runs part of a transaction so that what it wrote is taken back if it throws, and the rest stays. */
export async function inSavepoint<T>(tx: Tx, work: () => Promise<T>): Promise<T> {
  await tx.query('savepoint part');
  try {
    const result = await work();
    await tx.query('release savepoint part');
    return result;
  } catch (error) {
    await tx.query('rollback to savepoint part');
    throw error;
  }
}

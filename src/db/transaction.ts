import { type Connection, type Db, pool, type Tx } from './pool';
import { isTaken, run, sql } from './sql';
import { ticketFor } from './ticket';

const ATTEMPTS = 14;
const LONGEST_PAUSE_MS = 400;
const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

// Broken by somebody else's insert after our snapshot was taken: run again, the row is then seen and answered for.
const RACES = ['payments', 'cards'];

function isConflict(error: unknown): boolean {
  if (typeof error !== 'object' || error === null || !('code' in error)) return false;
  if (RACES.some((table) => isTaken(error, table))) return true;
  return error.code === '40001' || error.code === '40P01';
}

/** The number of the process that serves a connection, as it said when it was made; its types leave it out. */
const processOf = (client: object): number => ('processID' in client ? Number(client.processID) : 0);

const PASS_ON = '; select pg_advisory_unlock_all()';

const pause = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Whose rows a transaction sees, and at which moment of the business's clock it takes place. */
export type Scope = { readonly businessId: string; readonly now: Date };

/** How a transaction is made. `tells`: every listening screen hears of the business once it commits, where it wrote anything. */
type Manner = { readonly mode: string; readonly inTurn: boolean; readonly tells: boolean };

const WRITES = new Set(['INSERT', 'UPDATE', 'DELETE']);

async function within<T>(
  { businessId, now }: Scope,
  { mode, inTurn, tells }: Manner,
  work: (transaction: Tx) => Promise<T>,
): Promise<T> {
  if (!UUID.test(businessId)) throw new Error('Not a business id');
  const client = await pool().connect();
  let broken: Error | undefined;
  let wrote = false;
  const onError = (error: Error) => {
    broken = error; // unheard, it would end the process
  };
  client.on('error', onError);
  const query: Connection['query'] = async (statement, values) => {
    const result = await client.query(statement, values);
    if ((result.rowCount ?? 0) > 0 && WRITES.has(result.command)) wrote = true;
    return result;
  };
  try {
    // Before the transaction: the snapshot must be younger than the turn.
    if (inTurn) await run(client, sql`select pg_advisory_lock(hashtextextended(${businessId}, 0))`);
    // One round trip each; a ticket is a checked UUID and hexadecimal digits, so it can stand in the text.
    const ticket = ticketFor(businessId, processOf(client));
    await client.query(`begin isolation level ${mode}; select set_config('dahlia.ticket', '${ticket}', true)`);
    const result = await work({ query, businessId, now, inTransaction: true });
    const told = tells && wrote ? `select pg_notify('dahlia_changed', '${businessId}'); ` : '';
    await client.query(`${told}commit${inTurn ? PASS_ON : ''}`);
    return result;
  } catch (error) {
    await client.query(`rollback${inTurn ? PASS_ON : ''}`).catch(onError); // must not hide the error that led here
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
 *
 * @param tells false where no screen shows what is written
 */
export const inBusiness = <T>(scope: Scope, work: (tx: Tx) => Promise<T>, tells = true): Promise<T> =>
  writing(scope, { mode: 'serializable', inTurn: false, tells }, work);

/**
 * The same, one after the other within a business: for what takes a number or changes the day's sums, where all would
 * meet at the same few rows and most would have to run again.
 */
export const inBusinessInTurn = <T>(scope: Scope, work: (tx: Tx) => Promise<T>, tells = true): Promise<T> =>
  writing(scope, { mode: 'serializable', inTurn: true, tells }, work);

/**
 * In turn too, for what writes hundreds of rows at once. Not serializable: that follows every page of an index that was read, and two
 * businesses whose rows share pages would undo each other's sets again and again. What `work` decides on is kept as it is by row locks
 * (`for update`, `for share`); a row that somebody changed meanwhile makes it run again.
 */
export const inBusinessBySets = <T>(scope: Scope, work: (tx: Tx) => Promise<T>, tells = true): Promise<T> =>
  writing(scope, { mode: 'repeatable read', inTurn: true, tells }, work);

async function writing<T>(scope: Scope, manner: Manner, work: (tx: Tx) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await within(scope, manner, work);
    } catch (error) {
      if (attempt === ATTEMPTS || !isConflict(error)) throw error;
      // The more tries, the further apart: eight who want the same row all come through.
      await pause(Math.random() * Math.min(LONGEST_PAUSE_MS, 4 * 2 ** attempt));
    }
  }
}

/** Reads several things of one business as of one moment. */
export const readBusiness = <T>(scope: Scope, work: (db: Db) => Promise<T>): Promise<T> =>
  within(scope, { mode: 'repeatable read read only', inTurn: false, tells: false }, work);

/** Outside any business: for the doors (sign-in, links) and for what belongs to none. */
export const outsideBusiness = <T>(work: (db: Connection) => Promise<T>): Promise<T> => work(pool());

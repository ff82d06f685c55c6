import pg from 'pg';
import type { Writing } from '@/core/writing/writing';

/** A connection on which queries run, outside any business. */
export type Connection = {
  readonly query: (statement: string | pg.QueryConfig, values?: unknown[]) => Promise<pg.QueryResult>;
};
/** A transaction that sees one business only, as of one moment of its clock; reads take it, so they work in any transaction. */
export type Db = Connection & {
  readonly businessId: string;
  readonly now: Date;
  /** Who reads or writes, where that is somebody at the desk, and how they write days and numbers. */
  readonly personId?: string;
  readonly writing?: Writing | undefined;
};
/** A transaction that writes; writes take it, so none escapes. */
export type Tx = Db & { readonly inTransaction: true };

// `date` stays text (a civil day has no zone), `int8` becomes bigint, `numeric` stays text. For this pool only: the job
// queue's library puts its ids into JSON, which knows no bigint.
const types = new pg.TypeOverrides();
types.setTypeParser(pg.types.builtins.DATE, (text) => text);
types.setTypeParser(pg.types.builtins.INT8, (text) => BigInt(text));

/** No statement runs longer, in milliseconds, unless DATABASE_STATEMENT_MS says otherwise. */
const LONGEST_STATEMENT_MS = 60_000;

const kept = globalThis as { dahliaPool?: pg.Pool };

/** The application's connections, as the role that cannot see past the current business. Made at first use. */
export function pool(): pg.Pool {
  if (kept.dahliaPool) return kept.dahliaPool;
  const connectionString = process.env.DATABASE_URL;
  if (!connectionString) throw new Error('DATABASE_URL is not set');
  const longest = Number(process.env.DATABASE_STATEMENT_MS ?? LONGEST_STATEMENT_MS);
  const made = new pg.Pool({
    connectionString,
    types,
    max: Number(process.env.DATABASE_CONNECTIONS ?? 12),
    statement_timeout: longest,
    // A program that stands still in the middle of something gives back what it holds.
    idle_in_transaction_session_timeout: LONGEST_STATEMENT_MS,
  });
  // Unheard, an idle connection whose server goes away would end the process.
  made.on('error', () => undefined);
  kept.dahliaPool = made;
  return made;
}

/** How many connections there are, how many of them nobody uses, and how many requests wait for one. */
export function poolFigures(): { readonly all: number; readonly idle: number; readonly waiting: number } {
  const { totalCount, idleCount, waitingCount } = pool();
  return { all: totalCount, idle: idleCount, waiting: waitingCount };
}

/** Ends the pool, for programs that stop. */
export async function closePool(): Promise<void> {
  const open = kept.dahliaPool;
  kept.dahliaPool = undefined;
  await open?.end();
}

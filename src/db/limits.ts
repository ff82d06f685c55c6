import { createHash } from 'node:crypto';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { pool } from './pool';

/** So many attempts in so many seconds; then nothing until the time is over. */
export type Limit = { readonly name: string; readonly attempts: number; readonly seconds: number };

// For the pool of now: a program that ended its pool and goes on has new ones.
const limiters = new WeakMap<object, Map<string, RateLimiterPostgres>>();

function limiter(limit: Limit): RateLimiterPostgres {
  const store = pool();
  const own = limiters.get(store) ?? new Map<string, RateLimiterPostgres>();
  limiters.set(store, own);
  const known = own.get(limit.name);
  if (known) return known;
  const made = new RateLimiterPostgres({
    storeClient: store,
    storeType: 'pool',
    tableName: 'attempt_limits',
    tableCreated: true,
    keyPrefix: limit.name,
    points: limit.attempts,
    duration: limit.seconds,
  });
  own.set(limit.name, made);
  return made;
}

// Hashed, so that no address stands in the table.
const keyOf = (subject: string): string => createHash('sha256').update(subject).digest('hex').slice(0, 40);

/** What is left after an attempt: how many more, and in how many seconds all are there again; `refused` where there was none. */
export type Spent = { readonly refused: boolean; readonly left: number; readonly seconds: number };

/** Counts one attempt of a subject, and tells what is left. */
export async function spendAttempt(limit: Limit, subject: string): Promise<Spent> {
  const read = (result: RateLimiterRes, refused: boolean): Spent => ({
    refused,
    left: Math.max(0, result.remainingPoints),
    seconds: Math.max(1, Math.ceil(result.msBeforeNext / 1000)),
  });
  try {
    return read(await limiter(limit).consume(keyOf(subject)), false);
  } catch (refusal) {
    if (refusal instanceof RateLimiterRes) return read(refusal, true);
    throw refusal;
  }
}

/** Counts one attempt of a subject; 0 where it may go on, else the seconds to wait. */
export async function countAttempt(limit: Limit, subject: string): Promise<number> {
  const { refused, seconds } = await spendAttempt(limit, subject);
  return refused ? seconds : 0;
}

/** Forgets a subject's attempts, after it has shown that it is welcome. */
export async function forgetAttempts(limit: Limit, subject: string): Promise<void> {
  await limiter(limit).delete(keyOf(subject));
}

/** Whether a subject has no attempt left, without counting one. */
export async function isSpent(limit: Limit, subject: string): Promise<boolean> {
  const known = await limiter(limit).get(keyOf(subject));
  return known !== null && known.consumedPoints >= limit.attempts;
}

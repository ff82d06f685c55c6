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

/** Counts one attempt of a subject; 0 where it may go on, else the seconds to wait. */
export async function countAttempt(limit: Limit, subject: string): Promise<number> {
  try {
    await limiter(limit).consume(keyOf(subject));
    return 0;
  } catch (refusal) {
    if (refusal instanceof RateLimiterRes) return Math.max(1, Math.ceil(refusal.msBeforeNext / 1000));
    throw refusal;
  }
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

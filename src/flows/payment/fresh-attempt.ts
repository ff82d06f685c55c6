import { isAttemptUsed } from '@/db/payments';
import type { Tx } from '@/db/pool';
import { Refusal } from '@/flows/door/refusal';

/** One press has one key, for one thing. @throws Refusal `attempt-used` where something else was paid under it */
export async function requireFreshAttempt(tx: Tx, attemptKey: string): Promise<void> {
  if (await isAttemptUsed(tx, attemptKey)) throw new Refusal('attempt-used');
}

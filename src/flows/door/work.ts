/** Pieces of work for a visitor's computer: a blink for one of them, dear for whoever tries many times. */
import { type Challenge, createChallenge, type Solution, verifySolution } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/pbkdf2';
import { countAttempt, type Limit } from '@/db/limits';
import { services } from '@/outside/services';
import { Refusal } from './refusal';

/** A solved piece of work, as a page hands it in. */
export type Work = { readonly challenge: Challenge; readonly solution: Solution };

const WORK_SECONDS = 1200;
const COST = 120;
const USED: Limit = { name: 'work-used', attempts: 1, seconds: WORK_SECONDS };

/**
 * A new piece of work.
 *
 * @param subject what it is for; good for nothing else
 * @param keyPrefix how the answer has to begin: each further hexadecimal digit is sixteen times as long
 */
export const setWork = (subject: string, keyPrefix: string): Promise<Challenge> =>
  createChallenge({
    algorithm: 'PBKDF2/SHA-256',
    cost: COST,
    deriveKey,
    keyPrefix,
    expiresAt: new Date(Date.now() + WORK_SECONDS * 1000),
    hmacSignatureSecret: services().filesSecret,
    data: { till: subject },
  });

/**
 * Whether a piece of work is handed in for the first time.
 *
 * @param subject what it was set for
 * @throws Refusal `not-a-robot` unless it was set for this and is solved
 */
export async function isFreshWork(subject: string, { challenge, solution }: Partial<Work>): Promise<boolean> {
  if (!challenge?.parameters?.nonce || !solution) throw new Refusal('not-a-robot');
  const { verified } = await verifySolution({
    challenge,
    solution,
    deriveKey,
    hmacSignatureSecret: services().filesSecret,
  }).catch(() => ({ verified: false }));
  const { parameters } = challenge;
  if (!verified || parameters.data?.till !== subject) throw new Refusal('not-a-robot');
  return (await countAttempt(USED, parameters.nonce)) === 0;
}

/** Showing once more who one is, before what cannot be taken back. */
import { verify } from '@node-rs/argon2';
import { type Way, waysOf } from '@/core/person/steps';
import { countAttempt, forgetAttempts, type Limit } from '@/db/limits';
import { noteProved, passwordHashOf, personWithEmail } from '@/db/people';
import { passkeysOf } from '@/db/sign-in-steps';
import { type Context, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { hashOf } from '@/flows/house/session';
import { noteAccess } from '@/flows/log/log';
import { ownSteps } from './own-steps';
import { askForPasskey, type PasskeyAsked } from './passkeys';
import { type GivenStep, takeStep, wrongStep } from './take-step';

const TRIES: Limit = { name: 'prove', attempts: 8, seconds: 900 };

const tillProved = (token: string): string => `prove ${hashOf(token).toString('hex')}`;

/** How somebody can show it: by their second step; by their password where they have none. */
export const proveWays = desk('own', { bare: true }).read(async (db): Promise<readonly (Way | 'password')[]> => {
  const { email } = found(await personWithEmail(db, db.personId));
  const ways = waysOf(await ownSteps(db, email));
  return ways.length > 0 ? ways : ['password'];
});

/** What a browser is asked for, to show it by a passkey. @param token the session */
export const provePasskey = desk('own', { bare: true }).run(async (ctx, token: string): Promise<PasskeyAsked> => {
  const there = await ctx.read(async (db) => passkeysOf(db, found(await personWithEmail(db, ctx.personId)).email));
  return askForPasskey(tillProved(token), there, ctx.now);
});

/** What is shown: a second step, or the password. */
export type GivenProof = GivenStep | { readonly way: 'password'; readonly code: string };

async function isRight(ctx: Context, given: GivenProof, token: string): Promise<boolean> {
  const { personId, now } = ctx;
  const { email } = found(await ctx.read((db) => personWithEmail(db, personId)));
  if (given.way !== 'password') return ctx.write((tx) => takeStep(tx, email, given, tillProved(token), now));
  // Whoever has a second step is asked for that: a password that somebody saw is not enough.
  if (waysOf(await ctx.read((db) => ownSteps(db, email))).length > 0) return false;
  return verify(found(await ctx.read((db) => passwordHashOf(db, personId))), given.code);
}

/**
 * Shows once more who one is; it holds for five minutes in this session.
 *
 * @param token the session
 * @throws Refusal `password-wrong`, `code-wrong`, `recovery-wrong`, `passkey-not-taken`, `sign-in-too-often`
 */
export const prove = desk('own', { bare: true }).run(
  async (ctx, token: string, given: GivenProof, address: string): Promise<void> => {
    const session = hashOf(token).toString('hex');
    if ((await countAttempt(TRIES, session)) > 0) throw new Refusal('sign-in-too-often');
    if (!(await isRight(ctx, given, token))) {
      await ctx.write((tx) => noteAccess(tx, given.way === 'password' ? 'sign-in-failed' : 'step-failed', tx, address));
      throw wrongStep(given);
    }
    await forgetAttempts(TRIES, session);
    await ctx.write((tx) => noteProved(tx, hashOf(token)));
  },
);

import { randomBytes } from 'node:crypto';
import { verify } from '@node-rs/argon2';
import type { Challenge } from 'altcha-lib';
import { countAttempt, forgetAttempts, isSpent, type Limit } from '@/db/limits';
import { beginningOf } from '@/db/link-tokens';
import {
  type Actor,
  endOtherSessions,
  endSession,
  passwordHashOf,
  personWithEmail,
  type SignInCandidate,
  sessionHolder,
  sessionsOf,
  signInCandidates,
  touchSession,
  updatePassword,
} from '@/db/people';
import { anybody, desk, type House } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { signatureOf } from '@/flows/door/signing';
import { isFreshWork, setWork, type Work } from '@/flows/door/work';
import { noteAccess } from '@/flows/log/log';
import { programName } from '@/outside/programs';
import { enter, knownDevice, nameOf, type SignedIn } from './enter';
import { passwordHash, requireGoodPassword } from './password';
import { hashOf, IDLE_SECONDS } from './session';
import { type HalfSignedIn, halfSignedIn } from './steps/half';

const QUARTER = 900;
const PER_ADDRESS: Limit = { name: 'sign-in-address', attempts: 30, seconds: QUARTER };
/** Of one person from one address. */
const PER_PAIR: Limit = { name: 'sign-in-pair', attempts: 8, seconds: QUARTER };
/** Of one person's own computer, which no stranger's guesses keep out. */
const PER_DEVICE: Limit = { name: 'sign-in-device', attempts: 20, seconds: QUARTER };
/** Wrong passwords for one person from anywhere: from here on each try costs some work, but nobody is kept out. */
const WRONG: Limit = { name: 'sign-in-wrong', attempts: 8, seconds: QUARTER };
/** Wrong passwords of anybody from anywhere: one word tried on everybody, from a thousand computers, meets no other limit. */
const WRONG_AT_ALL: Limit = { name: 'sign-in-wrong-at-all', attempts: 60, seconds: 60 };
const EVERYBODY = 'everybody';
const OWN_PASSWORD: Limit = { name: 'own-password', attempts: 8, seconds: QUARTER };
/** How the answer to that work begins: a second or two of a computer's time. */
const WORK_PREFIX = '000';

/** Use is written down so often at most. */
const TOUCH_SECONDS = 300;
// Verified against where nobody has the address, so that both answers take the same time.
let nobody: Promise<string> | undefined;

const workSubject = (person: string): string => `sign-in ${hashOf(person).toString('hex')}`;

/** Whose password this is, of those who say that the address is theirs; null for nobody's. The time it takes does not tell. */
async function rightOne(candidates: readonly SignInCandidate[], password: string): Promise<SignInCandidate | null> {
  nobody ??= passwordHash(randomBytes(16).toString('hex'));
  if (candidates.length === 0) await verify(await nobody, password);
  // Somebody's desks have one password: each is looked at once.
  const hashes = [...new Set(candidates.map(({ passwordHash: hash }) => hash))];
  const right: string[] = [];
  for (const hash of hashes) if (await verify(hash, password)) right.push(hash);
  return candidates.find(({ passwordHash: hash }) => right.includes(hash)) ?? null;
}

async function requireFewTries(
  person: string,
  address: string,
  own: string | null,
  work?: Partial<Work>,
): Promise<void> {
  const waits = own
    ? [await countAttempt(PER_DEVICE, own)]
    : await Promise.all([countAttempt(PER_ADDRESS, address), countAttempt(PER_PAIR, `${address} ${person}`)]);
  if (waits.some((seconds) => seconds > 0)) throw new Refusal('sign-in-too-often');
  if (own) return;
  const spent = await Promise.all([isSpent(WRONG, person), isSpent(WRONG_AT_ALL, EVERYBODY)]);
  if (!spent.includes(true)) return;
  if (!work || !(await isFreshWork(workSubject(person), work))) throw new Refusal('work-first');
}

/** Notes a try with a wrong password where the address is somebody's. */
async function noteWrong(house: House, candidates: readonly SignInCandidate[], address: string) {
  const [candidate] = candidates;
  if (!candidate?.confirmed) return;
  await house.within(candidate.businessId).write(async (tx) => {
    const { name } = found(await personWithEmail(tx, candidate.personId));
    await noteAccess(tx, 'sign-in-failed', { personId: candidate.personId, name }, address);
  });
}

/** What comes with a try: the work that was asked for, what this computer carries from before, and what it says that it is. */
export type SignInWith = {
  readonly work?: Partial<Work> | undefined;
  readonly device?: string | undefined;
  readonly agent?: string | undefined;
};

/**
 * Signs in with address and password: at once, or half, where a second step is asked for.
 *
 * @param address the network address that tries
 * @returns the secret for the session's cookie, of which the database keeps the hash, and what this computer carries from now on; or what
 *   is still asked
 * @throws Refusal `sign-in-failed`, `sign-in-too-often`, `work-first`, `not-a-robot`
 */
export const signIn = anybody({ tells: false }).run(
  async (
    house,
    email: string,
    password: string,
    address: string,
    { work, device = '', agent = '' }: SignInWith = {},
  ): Promise<SignedIn | HalfSignedIn> => {
    const person = nameOf(email);
    const own = knownDevice(device, person, house.now);
    await requireFewTries(person, address, own, work);
    const candidates = await house.outside((db) => signInCandidates(db, person));
    const right = await rightOne(candidates, password);
    if (!right) {
      if (!own) await Promise.all([countAttempt(WRONG, person), countAttempt(WRONG_AT_ALL, EVERYBODY)]);
      await noteWrong(house, candidates, address);
      throw new Refusal('sign-in-failed');
    }
    await forgetAttempts(PER_PAIR, `${address} ${person}`);
    const half = right.confirmed ? await halfSignedIn(house, right, person, address) : null;
    return half ?? enter(house, right, person, { address, agent }, own);
  },
);

/** The work before a further try, once many passwords were wrong for this address. */
export const signInWork = anybody({ tells: false }).run(
  async (_house, email: string): Promise<Challenge> => setWork(workSubject(nameOf(email)), WORK_PREFIX),
);

/** Who holds this session; null where it has ended, or nobody used it for twelve hours. */
export const actorOf = anybody({ tells: false }).run(async (house, token: string): Promise<Actor | null> => {
  const session = { begins: beginningOf(token), hash: hashOf(token) };
  const holder = await house.outside((db) => sessionHolder(db, session, house.now, IDLE_SECONDS));
  if (!holder) return null;
  const { unusedSeconds, ...actor } = holder;
  if (unusedSeconds > TOUCH_SECONDS) {
    await house.within(actor.businessId).write((tx) => touchSession(tx, session.hash));
  }
  return actor;
});

/** Whether a session is open, without using it: for a line that stays open by itself. */
export const isSignedIn = anybody({ tells: false }).run(async (house, token: string): Promise<boolean> => {
  const session = { begins: beginningOf(token), hash: hashOf(token) };
  return (await house.outside((db) => sessionHolder(db, session, house.now, IDLE_SECONDS))) !== null;
});

/** Ends the session, here and for the database; its open lines hear of it. */
export const signOut = desk('own', { bare: true }).write(async (tx, token: string, address: string): Promise<void> => {
  await endSession(tx, tx.personId, hashOf(token));
  await noteAccess(tx, 'signed-out', tx, address);
});

/** A place where somebody is signed in. `key` names it to its own person, and opens nothing. */
export type SignedInPlace = {
  readonly key: string;
  readonly program: string;
  readonly address: string;
  readonly since: Date;
  /** The computer's own time; written down every few minutes at most. */
  readonly usedAt: Date;
  readonly here: boolean;
};

const keyOf = (hash: Buffer): string => signatureOf('session', hash.toString('hex')).slice(0, 24);

/** Where the person is signed in, last used first. @param token the session that looks */
export const signedInPlaces = desk('own').read(async (db, token: string): Promise<SignedInPlace[]> => {
  const sessions = await sessionsOf(db, db.personId, IDLE_SECONDS);
  return sessions.map(({ tokenHash, agent, address, createdAt, usedAt }) => ({
    key: keyOf(tokenHash),
    program: programName(agent),
    address,
    since: createdAt,
    usedAt,
    here: tokenHash.equals(hashOf(token)),
  }));
});

/** Ends one of the person's other sessions, or all of them. @param key which one; empty for all but this @param token the one that stays */
export const endPlaces = desk('own').write(async (tx, key: string, token: string, address: string): Promise<void> => {
  const kept = hashOf(token);
  if (!key) await endOtherSessions(tx, tx.personId, kept);
  else
    for (const { tokenHash } of await sessionsOf(tx, tx.personId, IDLE_SECONDS))
      if (keyOf(tokenHash) === key && !tokenHash.equals(kept)) await endSession(tx, tx.personId, tokenHash);
  await noteAccess(tx, 'sessions-ended', tx, address);
});

/**
 * Gives the person who is signed in a new password; all their other sessions end.
 *
 * @param token the session that stays
 * @throws Refusal `password-wrong` where the old one is not right, `password-weak`, `sign-in-too-often`
 */
export const changePassword = desk('own').run(
  async (
    ctx,
    passwords: { readonly old: string; readonly fresh: string },
    token: string,
    address: string,
  ): Promise<void> => {
    const { personId } = ctx;
    if ((await countAttempt(OWN_PASSWORD, personId)) > 0) throw new Refusal('sign-in-too-often');
    const before = found(await ctx.read((db) => passwordHashOf(db, personId)));
    if (!(await verify(before, passwords.old))) throw new Refusal('password-wrong');
    const { name, email } = found(await ctx.read((db) => personWithEmail(db, personId)));
    await requireGoodPassword('fresh', passwords.fresh, [name, email]);
    const after = await passwordHash(passwords.fresh);
    await ctx.write(async (tx) => {
      await updatePassword(tx, personId, after);
      await endOtherSessions(tx, personId, hashOf(token));
      await noteAccess(tx, 'password', tx, address);
    });
    await forgetAttempts(OWN_PASSWORD, personId);
  },
);

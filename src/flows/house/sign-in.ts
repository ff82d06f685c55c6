import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import type { Challenge } from 'altcha-lib';
import { countAttempt, forgetAttempts, isSpent, type Limit } from '@/db/limits';
import { beginningOf, newToken } from '@/db/link-tokens';
import {
  type Actor,
  endOtherSessions,
  endSession,
  insertSession,
  passwordHashOf,
  personById,
  sessionHolder,
  signInCandidate,
  touchSession,
  updatePassword,
} from '@/db/people';
import { anybody, desk, type House } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sealed, unsealed } from '@/flows/door/signing';
import { isFreshWork, setWork, type Work } from '@/flows/door/work';
import { noteAccess } from '@/flows/log/log';

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

export const SESSION_DAYS = 14;
/** A session that nobody used for so long has ended, in seconds of the computer's own time. */
export const IDLE_SECONDS = 12 * 3600;
/** Use is written down so often at most. */
const TOUCH_SECONDS = 300;
export const DEVICE_DAYS = 400;

const hashOf = (token: string): Buffer => createHash('sha256').update(token).digest();

/** argon2id with the library's recommended cost. */
export const passwordHash = (password: string): Promise<string> => hash(password);

// Verified against where nobody has the address, so that both answers take the same time.
let nobody: Promise<string> | undefined;

const nameOf = (email: string): string => email.trim().toLowerCase();
const workSubject = (person: string): string => `sign-in ${hashOf(person).toString('hex')}`;

/** What a computer on which somebody signed in carries: whose it is, and a number of its own. */
type DeviceSeal = { readonly p: string; readonly d: string; readonly until: number };

/** The number of a computer on which this person has signed in before; null for any other. */
function knownDevice(device: string, person: string, now: Date): string | null {
  const seal = device ? unsealed<DeviceSeal>('device', device) : null;
  return seal && seal.p === hashOf(person).toString('hex') && seal.until > now.getTime() ? seal.d : null;
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
async function noteWrong(house: House, candidate: { businessId: string; personId: string } | null, address: string) {
  if (!candidate) return;
  await house.within(candidate.businessId).write(async (tx) => {
    const { name } = found(await personById(tx, candidate.personId));
    await noteAccess(tx, 'sign-in-failed', { personId: candidate.personId, name }, address);
  });
}

/** What comes with a try: the work that was asked for, and what this computer carries from before. */
export type SignInWith = { readonly work?: Partial<Work> | undefined; readonly device?: string | undefined };

/**
 * Opens a session.
 *
 * @param address the network address that tries
 * @returns the secret for the session's cookie, of which the database keeps the hash, and what this computer carries from now on
 * @throws Refusal `sign-in-failed`, `sign-in-too-often`, `work-first`, `not-a-robot`
 */
export const signIn = anybody({ tells: false }).run(
  async (
    house,
    email: string,
    password: string,
    address: string,
    { work, device = '' }: SignInWith = {},
  ): Promise<{ token: string; expiresAt: Date; device: string }> => {
    const person = nameOf(email);
    const { now } = house;
    const own = knownDevice(device, person, now);
    await requireFewTries(person, address, own, work);
    const candidate = await house.outside((db) => signInCandidate(db, person));
    nobody ??= passwordHash(randomBytes(16).toString('hex'));
    const right = await verify(candidate?.passwordHash ?? (await nobody), password);
    if (!candidate || !right) {
      if (!own) await Promise.all([countAttempt(WRONG, person), countAttempt(WRONG_AT_ALL, EVERYBODY)]);
      await noteWrong(house, candidate, address);
      throw new Refusal('sign-in-failed');
    }
    await forgetAttempts(PER_PAIR, `${address} ${person}`);
    const { businessId, personId } = candidate;
    const token = newToken(businessId, 32);
    const expiresAt = new Date(now.getTime() + SESSION_DAYS * 86_400_000);
    await house.within(businessId).write(async (tx) => {
      await insertSession(tx, { tokenHash: hashOf(token), businessId, personId, createdAt: now, expiresAt });
      const { name } = found(await personById(tx, personId));
      await noteAccess(tx, 'signed-in', { personId, name }, address);
    });
    const until = now.getTime() + DEVICE_DAYS * 86_400_000;
    const seal: DeviceSeal = { p: hashOf(person).toString('hex'), d: own ?? randomBytes(12).toString('hex'), until };
    return { token, expiresAt, device: sealed('device', seal) };
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
export const signOut = desk('see').write(async (tx, token: string, address: string): Promise<void> => {
  await endSession(tx, tx.personId, hashOf(token));
  await noteAccess(tx, 'signed-out', tx, address);
});

/**
 * Gives the person who is signed in a new password; all their other sessions end.
 *
 * @param token the session that stays
 * @throws Refusal `password-wrong` where the old one is not right, `sign-in-too-often`
 */
export const changePassword = desk('see').run(
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
    const after = await passwordHash(passwords.fresh);
    await ctx.write(async (tx) => {
      await updatePassword(tx, personId, after);
      await endOtherSessions(tx, personId, hashOf(token));
      await noteAccess(tx, 'password', tx, address);
    });
    await forgetAttempts(OWN_PASSWORD, personId);
  },
);

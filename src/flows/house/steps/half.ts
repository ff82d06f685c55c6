/** Half signed in: the password was right, and the second step is still to come. */
import { randomBytes } from 'node:crypto';
import { areOver, asksForStep, type Way, waysOf } from '@/core/person/steps';
import { countAttempt, forgetAttempts, isSpent, type Limit } from '@/db/limits';
import { passwordHashOf, personWithEmail, type SignInCandidate, signInCandidates } from '@/db/people';
import { forgetSteps, passkeysOf, setStepsLost } from '@/db/sign-in-steps';
import { anybody, type House } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sealed, signatureOf, unsealed } from '@/flows/door/signing';
import { enter, knownDevice, nameOf, type SignedIn } from '@/flows/house/enter';
import { noteAccess } from '@/flows/log/log';
import { queueMessage } from '@/flows/message/queue-message';
import { ownSteps } from './own-steps';
import { askForPasskey, type PasskeyAnswer, type PasskeyAsked, takePasskey } from './passkeys';
import { type GivenStep, takeStep, wrongStep } from './take-step';

const HALF_MINUTES = 10;
const DAY = 86_400;
const QUARTER = 900;
/** Of one half sign-in. */
const PER_HALF: Limit = { name: 'step-half', attempts: 6, seconds: HALF_MINUTES * 60 };
/** Of one person from one network address. */
const PER_PAIR: Limit = { name: 'step-pair', attempts: 10, seconds: QUARTER };
/** Of one person's own computer, which no stranger's guesses keep out. */
const PER_DEVICE: Limit = { name: 'step-device', attempts: 20, seconds: QUARTER };
/** Wrong codes of one person's app from strange computers: a guess that goes on for a year is right once in fifteen. */
const WRONG: Limit = { name: 'step-wrong', attempts: 60, seconds: DAY };
/** After so many wrong ones somebody is told that their password is known. */
const TOLD: Limit = { name: 'step-told', attempts: 4, seconds: DAY };
const PASSKEYS: Limit = { name: 'passkey-address', attempts: 60, seconds: QUARTER };

/** What a half sign-in says: whose it is, by which password, until when. */
type HalfSeal = {
  readonly b: string;
  readonly p: string;
  readonly e: string;
  readonly h: string;
  readonly n: string;
  readonly until: number;
};

/** What is still asked of somebody whose password was right. */
export type HalfSignedIn = {
  readonly half: string;
  readonly ways: readonly Way[];
};

// Whoever changes their password ends what was begun with the one before.
const ofPassword = (hash: string): string => signatureOf('half', hash).slice(0, 16);
const tillHalf = (nonce: string): string => `half ${nonce}`;

/** What is still asked; null where the password alone is enough. Steps that were lost long enough ago are taken off here. */
export async function halfSignedIn(
  house: House,
  { businessId, personId, passwordHash }: SignInCandidate,
  email: string,
  address: string,
): Promise<HalfSignedIn | null> {
  const steps = await house.outside((db) => ownSteps(db, email));
  if (!asksForStep(steps)) return null;
  if (areOver(steps, house.now)) {
    await house.within(businessId).write(async (tx) => {
      const person = found(await personWithEmail(tx, personId));
      await forgetSteps(tx, email);
      await noteAccess(tx, 'step-removed', { personId, name: person.name }, address);
      const key = `step-changed:${personId}:lost:${tx.now.getTime()}`;
      const details = { text: 'Your second step was taken off, as was asked for three days ago.' };
      await queueMessage(tx, { kind: 'step-changed', key, toName: person.name, toAddress: person.email, details });
    });
    return null;
  }
  const nonce = randomBytes(12).toString('base64url');
  const half = sealed('half', {
    b: businessId,
    p: personId,
    e: email,
    h: ofPassword(passwordHash),
    n: nonce,
    until: house.now.getTime() + HALF_MINUTES * 60_000,
  } satisfies HalfSeal);
  return { half, ways: waysOf(steps) };
}

/** Whose half sign-in it is. @throws Refusal `half-over` where it is too old, or the password is another by now */
export async function openHalf(house: House, half: string): Promise<HalfSeal> {
  const seal = unsealed<HalfSeal>('half', half);
  if (!seal || seal.until <= house.now.getTime()) throw new Refusal('half-over');
  const hash = await house.within(seal.b).read((db) => passwordHashOf(db, seal.p));
  if (hash === null || ofPassword(hash) !== seal.h) throw new Refusal('half-over');
  const desks = await house.outside((db) => signInCandidates(db, seal.e));
  if (!desks.some(({ businessId, personId }) => businessId === seal.b && personId === seal.p))
    throw new Refusal('half-over');
  return seal;
}

/** What a browser is asked for, where a passkey is the second step. @throws Refusal `half-over` */
export const stepPasskey = anybody({ tells: false }).run(async (house, half: string): Promise<PasskeyAsked> => {
  const seal = await openHalf(house, half);
  return askForPasskey(tillHalf(seal.n), await house.outside((db) => passkeysOf(db, seal.e)), house.now);
});

async function requireFewCodes(seal: HalfSeal, given: GivenStep, address: string, own: string | null): Promise<void> {
  const waits = own
    ? [await countAttempt(PER_DEVICE, own)]
    : await Promise.all([countAttempt(PER_HALF, seal.n), countAttempt(PER_PAIR, `${address} ${seal.e}`)]);
  if (waits.some((seconds) => seconds > 0)) throw new Refusal('sign-in-too-often');
  // Recovery codes and passkeys are not to be guessed: they stay open, so that nobody is locked out by whoever has their password.
  if (!own && given.way === 'app' && (await isSpent(WRONG, seal.e))) throw Refusal.at('code', 'codes-spent');
}

/** Notes a wrong step; whoever's password is known to somebody who has not their phone hears of it. */
async function noteWrong(house: House, { b, p, e }: HalfSeal, address: string, own: string | null): Promise<void> {
  const tells = !own && (await countAttempt(TOLD, e)) > 0;
  if (!own) await countAttempt(WRONG, e);
  await house.within(b).write(async (tx) => {
    const { name, email } = found(await personWithEmail(tx, p));
    await noteAccess(tx, 'step-failed', { personId: p, name }, address);
    const key = `codes-tried:${p}:${tx.now.toISOString().slice(0, 10)}`;
    if (tells)
      await queueMessage(tx, { kind: 'codes-tried', key, toName: name, toAddress: email, details: { address } });
  });
}

/** What comes with a step: what this computer carries from before, and what it says that it is. */
export type StepWith = { readonly device?: string | undefined; readonly agent?: string | undefined };

/**
 * Takes the second step, and signs in. Whoever can take it has not lost it: a wait for its end is over.
 *
 * @throws Refusal `half-over`, `code-wrong`, `recovery-wrong`, `passkey-not-taken`, `codes-spent`, `sign-in-too-often`
 */
export const takeSecondStep = anybody({ tells: false }).run(
  async (
    house,
    half: string,
    given: GivenStep,
    address: string,
    { device = '', agent = '' }: StepWith = {},
  ): Promise<SignedIn> => {
    const seal = await openHalf(house, half);
    const own = knownDevice(device, seal.e, house.now);
    await requireFewCodes(seal, given, address, own);
    const right = await house.outside((db) => takeStep(db, seal.e, given, tillHalf(seal.n), house.now));
    if (!right) {
      await noteWrong(house, seal, address, own);
      throw wrongStep(given);
    }
    await forgetAttempts(PER_PAIR, `${address} ${seal.e}`);
    await house.within(seal.b).write(async (tx) => {
      const { name, email } = found(await personWithEmail(tx, seal.p));
      await setStepsLost(tx, email, null);
      if (given.way !== 'recovery') return;
      await noteAccess(tx, 'recovery-used', { personId: seal.p, name }, address);
      const { codesLeft } = await ownSteps(tx, email);
      const text = `A recovery code was used to sign in. ${codesLeft} of them are left.`;
      const key = `step-changed:${seal.p}:recovery:${seal.n}`;
      await queueMessage(tx, { kind: 'step-changed', key, toName: name, toAddress: email, details: { text } });
    });
    const desk = { businessId: seal.b, personId: seal.p, confirmed: true };
    return enter(house, desk, seal.e, { address, agent }, own);
  },
);

/** What a browser is asked for, to sign in with a passkey instead of a password. */
export const passkeyAsked = anybody({ tells: false }).run(
  async (house): Promise<PasskeyAsked> => askForPasskey('sign-in', [], house.now),
);

/**
 * Signs in with a passkey alone: it is had, and its authenticator knows its person.
 *
 * @throws Refusal `passkey-not-taken`, `sign-in-too-often`
 */
export const signInByPasskey = anybody({ tells: false }).run(
  async (
    house,
    answer: PasskeyAnswer,
    address: string,
    { device = '', agent = '' }: StepWith = {},
  ): Promise<SignedIn> => {
    if ((await countAttempt(PASSKEYS, address)) > 0) throw new Refusal('sign-in-too-often');
    const email = await house.outside((db) => takePasskey(db, answer, 'sign-in', house.now));
    const [right] = email ? await house.outside((db) => signInCandidates(db, email)) : [];
    if (!email || !right?.confirmed) throw new Refusal('passkey-not-taken');
    await house.within(right.businessId).write((tx) => setStepsLost(tx, email, null));
    return enter(house, right, nameOf(email), { address, agent }, knownDevice(device, email, house.now));
  },
);

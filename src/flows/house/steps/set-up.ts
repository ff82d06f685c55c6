/** Setting up one's second step: an authenticator app, passkeys, recovery codes; and taking it off. */
import QRCode from 'qrcode';
import { asksForStep, type OwnSteps } from '@/core/person/steps';
import { accessRules } from '@/db/access-rules';
import { endOtherSessions, endSessionsElsewhere, isUnconfirmed, personWithEmail } from '@/db/people';
import { addPasskey, forgetSteps, passkeysOf, removePasskey, setTimeKey, storedSteps } from '@/db/sign-in-steps';
import { desk, type Reading, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sealed, unsealed } from '@/flows/door/signing';
import { hashOf } from '@/flows/house/session';
import { noteAccess } from '@/flows/log/log';
import { queueMessage } from '@/flows/message/queue-message';
import { realClock } from '@/outside/clock';
import { encrypted } from '@/outside/sealing';
import { freshRecoveryCodes, knownSteps, ownSteps } from './own-steps';
import { askToMake, madePasskey, type PasskeyMade, type RegistrationResponseJSON } from './passkeys';
import { appKey, newTimeKey, stepOfCode } from './time-code';

/** What somebody is shown of their second step. */
export type StepsView = {
  readonly email: string;
  /** Whether the address is known to be theirs: before, there is no second step. */
  readonly confirmed: boolean;
  readonly steps: OwnSteps;
  readonly appSince: Date | null;
  readonly passkeys: readonly {
    readonly id: string;
    readonly name: string;
    readonly madeAt: Date;
    readonly usedAt: Date | null;
  }[];
  /** Whether the business asks everybody for one. */
  readonly required: boolean;
};

/** Where a person and an address come from and go, as what is written down of them says. */
type Place = { readonly token: string; readonly address: string };

export const mySteps = desk('own', { bare: true }).read(async (db): Promise<StepsView> => {
  const { email } = found(await personWithEmail(db, db.personId));
  const stored = await storedSteps(db, email);
  return {
    email,
    confirmed: !(await isUnconfirmed(db, db.personId)),
    steps: await ownSteps(db, email),
    appSince: stored?.timeSince ?? null,
    passkeys: (await passkeysOf(db, email)).map(({ id, name, madeAt, usedAt }) => ({ id, name, madeAt, usedAt })),
    required: (await accessRules(db)).stepRequired,
  };
});

/** @throws Refusal `step-unconfirmed` where an address is not known to be theirs */
async function confirmedPerson(db: Reading) {
  if (await isUnconfirmed(db, db.personId)) throw new Refusal('step-unconfirmed');
  return found(await personWithEmail(db, db.personId));
}

type AppSeal = { readonly p: string; readonly k: string; readonly until: number };
const APP_MINUTES = 20;

/** A key for an authenticator app, to be read by its camera or typed; it counts once a code of it was typed. */
export type NewApp = { readonly seal: string; readonly typed: string; readonly picture: string };

/** Makes a key for an app. @throws Refusal `step-unconfirmed`, `prove-again` */
export const newApp = desk('own', { bare: true, again: true }).run(async (ctx): Promise<NewApp> => {
  const { email } = await ctx.read(confirmedPerson);
  const key = newTimeKey();
  const until = ctx.now.getTime() + APP_MINUTES * 60_000;
  const { typed, address } = appKey(key, email);
  const seal = sealed('new-app', { p: ctx.personId, k: key.toString('base64url'), until } satisfies AppSeal);
  return { seal, typed, picture: await QRCode.toString(address, { type: 'svg', margin: 4 }) };
});

/** What changed of somebody's second step, in words for its mail. */
async function tell(tx: Writing, person: { name: string; email: string }, what: string): Promise<void> {
  const key = `step-changed:${tx.personId}:${what}:${tx.now.getTime()}`;
  await queueMessage(tx, {
    kind: 'step-changed',
    key,
    toName: person.name,
    toAddress: person.email,
    details: { text: what },
  });
}

/**
 * What follows from a step that was added. With the first one come recovery codes, and all other sessions end: they began without it.
 *
 * @returns the codes, told this once; none where there are some already
 */
async function added(
  tx: Writing,
  before: OwnSteps,
  person: { name: string; email: string },
  what: string,
  { token, address }: Place,
): Promise<string[]> {
  await noteAccess(tx, 'step-added', tx, address);
  await tell(tx, person, what);
  if (asksForStep(before)) return [];
  await endOtherSessions(tx, tx.personId, hashOf(token));
  await endSessionsElsewhere(tx, tx.personId);
  const { handle } = found(await storedSteps(tx, person.email));
  return freshRecoveryCodes(tx, person.email, handle);
}

/** Takes a new app by a code of it. @returns recovery codes, where it is the first step @throws Refusal `code-wrong`, `key-over`, `prove-again` */
export const addApp = desk('own', { bare: true, again: true }).run(
  async (ctx, seal: string, typed: string, place: Place): Promise<string[]> => {
    const given = unsealed<AppSeal>('new-app', seal);
    if (!given || given.p !== ctx.personId || given.until <= ctx.now.getTime()) throw new Refusal('key-over');
    const key = Buffer.from(given.k, 'base64url');
    const step = stepOfCode(key, typed, await realClock.now());
    if (step === null) throw Refusal.at('code', 'code-wrong');
    return ctx.turn(async (tx) => {
      const person = await confirmedPerson(tx);
      const before = await ownSteps(tx, person.email);
      const { handle } = found(await knownSteps(tx, person.email));
      const bound = handle.toString('hex');
      await setTimeKey(tx, person.email, { sealed: encrypted('time-key', bound, key), step, at: tx.now });
      return added(tx, before, person, 'An authenticator app was set up.', place);
    });
  },
);

const makesFor = (personId: string): string => `make ${personId}`;

/** What a browser needs to make a passkey. @throws Refusal `step-unconfirmed`, `prove-again` */
export const newPasskey = desk('own', { bare: true, again: true }).run(async (ctx): Promise<PasskeyMade> => {
  const { person, handle, there } = await ctx.write(async (tx) => {
    const one = await confirmedPerson(tx);
    const stored = found(await knownSteps(tx, one.email));
    return { person: one, handle: stored.handle, there: await passkeysOf(tx, one.email) };
  });
  return askToMake({ ...person, handle }, there, makesFor(ctx.personId), ctx.now);
});

const MOST_PASSKEYS = 20;

/** Keeps a passkey that a browser made. @returns recovery codes, where it is the first step @throws Refusal `passkey-not-taken`, `prove-again` */
export const keepPasskey = desk('own', { bare: true, again: true }).run(
  async (
    ctx,
    answer: { readonly seal: string; readonly response: RegistrationResponseJSON },
    name: string,
    place: Place,
  ): Promise<string[]> => {
    const made = await madePasskey(answer, makesFor(ctx.personId), ctx.now);
    if (!made) throw new Refusal('passkey-not-taken');
    return ctx.turn(async (tx) => {
      const person = await confirmedPerson(tx);
      const before = await ownSteps(tx, person.email);
      if (before.passkeys >= MOST_PASSKEYS) throw new Refusal('passkey-not-taken');
      if (!(await addPasskey(tx, person.email, { ...made, name, madeAt: tx.now })))
        throw new Refusal('passkey-not-taken');
      return added(tx, before, person, `The passkey “${name}” was added.`, place);
    });
  },
);

/** @throws Refusal `step-needed` where the business asks for one and this was the last */
async function removed(
  tx: Writing,
  person: { name: string; email: string },
  what: string,
  address: string,
): Promise<void> {
  if (!asksForStep(await ownSteps(tx, person.email))) {
    if ((await accessRules(tx)).stepRequired) throw new Refusal('step-needed');
    await forgetSteps(tx, person.email);
  }
  await noteAccess(tx, 'step-removed', tx, address);
  await tell(tx, person, what);
}

/** Takes the app away. With the last step the recovery codes go. @throws Refusal `step-needed`, `prove-again` */
export const removeApp = desk('own', { again: true }).turn(async (tx, address: string): Promise<void> => {
  const person = await confirmedPerson(tx);
  if (!(await ownSteps(tx, person.email)).hasApp) return;
  await setTimeKey(tx, person.email, null);
  await removed(tx, person, 'The authenticator app was taken away.', address);
});

/** Takes a passkey away. @throws Refusal `not-found`, `step-needed`, `prove-again` */
export const dropPasskey = desk('own', { again: true }).turn(async (tx, id: string, address: string): Promise<void> => {
  const person = await confirmedPerson(tx);
  const name = found(await removePasskey(tx, person.email, id));
  await removed(tx, person, `The passkey “${name}” was taken away.`, address);
});

/** Ten new recovery codes in the place of those before. @throws Refusal `step-first`, `prove-again` */
export const newRecoveryCodes = desk('own', { again: true }).turn(async (tx, address: string): Promise<string[]> => {
  const person = await confirmedPerson(tx);
  const stored = await storedSteps(tx, person.email);
  if (!stored || !asksForStep(await ownSteps(tx, person.email))) throw new Refusal('step-first');
  await noteAccess(tx, 'recovery-codes', tx, address);
  await tell(tx, person, 'New recovery codes were made. Those before are good no longer.');
  return freshRecoveryCodes(tx, person.email, stored.handle);
});

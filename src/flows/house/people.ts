import { randomBytes, randomUUID } from 'node:crypto';
import { verify } from '@node-rs/argon2';
import { type ExtraRight, extraBeyond, type Holds, holdsText, mayDo, type Role } from '@/core/person/rights';
import { asksForStep } from '@/core/person/steps';
import { businessById, raiseFeedVersion } from '@/db/businesses';
import {
  endInvitation,
  type Invitation,
  insertInvitation,
  invitationById,
  lockedInvitation,
  openInvitations,
  renewInvitation,
} from '@/db/invitations';
import { countAttempt, type Limit } from '@/db/limits';
import {
  type Actor,
  type Colleague,
  claimName,
  colleagues,
  insertPerson,
  insertUnconfirmed,
  letGo,
  lockedColleague,
  personByEmail,
  personWithEmail,
  type SignInCandidate,
  signInCandidates,
  takeBack,
  updateRights,
} from '@/db/people';
import { anybody, type Context, desk, type House, type Reading, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { sealed, unsealed } from '@/flows/door/signing';
import { noteChange, noteSettings } from '@/flows/log/log';
import { queueMessage } from '@/flows/message/queue-message';
import { deviceSeal } from './enter';
import { passwordHash, requireGoodPassword } from './password';
import { type From, type OpenedSession, openSession } from './session';
import { actorOf } from './sign-in';
import { ownSteps } from './steps/own-steps';

const DAY_MS = 86_400_000;
/** How long an invitation is good. */
export const INVITED_DAYS = 7;
const INVITATIONS: Limit = { name: 'invitations', attempts: 40, seconds: 86_400 };
const PASSWORDS: Limit = { name: 'invitation-password', attempts: 8, seconds: 900 };

/** Who works here, who did, and who is asked to. */
export type PeopleView = { readonly people: readonly Colleague[]; readonly invitations: readonly Invitation[] };

export const peopleView = desk('people').read(
  async (db): Promise<PeopleView> => ({ people: await colleagues(db), invitations: await openInvitations(db) }),
);

type InvitationSeal = { readonly b: string; readonly i: string; readonly n: string };

/** What stands in an invitation's link. */
export const invitationLink = (businessId: string, { id, nonce }: Pick<Invitation, 'id' | 'nonce'>): string =>
  sealed('invitation', { b: businessId, i: id, n: nonce } satisfies InvitationSeal);

const freshNonce = (): string => randomBytes(12).toString('base64url');
const weekFrom = (now: Date): Date => new Date(now.getTime() + INVITED_DAYS * DAY_MS);

const queueInvitation = (tx: Writing, id: string, email: string, nonce: string): Promise<boolean> =>
  queueMessage(tx, {
    kind: 'invitation',
    key: `invitation:${id}:${nonce}`,
    toName: '',
    toAddress: email,
    details: { invitationId: id, nonce },
  });

async function requireFewInvitations(ctx: Context): Promise<void> {
  if ((await countAttempt(INVITATIONS, ctx.businessId)) > 0) throw new Refusal('mails-too-often');
}

/**
 * Asks somebody by mail to work here.
 *
 * @throws Refusal `here-already`, `invited-already`, `mails-too-often`, `mail-not-confirmed`, `prove-again`
 */
export const invite = desk('people', { again: true }).run(
  async (ctx, email: string, role: Role, extra: readonly ExtraRight[]): Promise<void> => {
    await requireFewInvitations(ctx);
    await ctx.turn(async (tx) => {
      const there = await personByEmail(tx, email);
      if (there && !there.leftAt) throw Refusal.at('email', 'here-already');
      const invited = (await openInvitations(tx)).some((one) => one.email.toLowerCase() === email.toLowerCase());
      if (invited) throw Refusal.at('email', 'invited-already');
      const one = { id: randomUUID(), email, role, extra: extraBeyond(role, extra), nonce: freshNonce() };
      await insertInvitation(tx, { ...one, byName: tx.name, goodUntil: weekFrom(tx.now) });
      await queueInvitation(tx, one.id, email, one.nonce);
      await noteChange(tx, 'invited', [{ what: email, from: '', to: holdsText(one) }]);
    });
  },
);

/** Sends an invitation again, with a new link that is good for a week. @throws Refusal `not-found`, `mails-too-often` */
export const inviteAgain = desk('people').run(async (ctx, id: string): Promise<void> => {
  await requireFewInvitations(ctx);
  await ctx.turn(async (tx) => {
    const one = await lockedInvitation(tx, id);
    if (one?.state !== 'open') throw new Refusal('not-found');
    const nonce = freshNonce();
    await renewInvitation(tx, id, nonce, weekFrom(tx.now));
    await queueInvitation(tx, id, one.email, nonce);
  });
});

/** Withdraws an invitation: its link opens nothing any more. */
export const withdrawInvitation = desk('people').turn(async (tx, id: string): Promise<void> => {
  const one = await lockedInvitation(tx, id);
  if (one?.state !== 'open') throw new Refusal('not-found');
  await endInvitation(tx, id, 'withdrawn');
  await noteChange(tx, 'invitation-withdrawn', [{ what: one.email, from: holdsText(one), to: '' }]);
});

/** Somebody who works here, held. @throws Refusal `not-here` */
async function here(tx: Writing, personId: string): Promise<Colleague> {
  const person = found(await lockedColleague(tx, personId));
  if (person.leftAt) throw new Refusal('not-here');
  return person;
}

/** @throws Refusal `last-owner` where nobody else is one */
async function requireOtherOwner(tx: Writing, personId: string): Promise<void> {
  const others = (await colleagues(tx)).filter(
    ({ id, role, leftAt }) => id !== personId && role === 'owner' && !leftAt,
  );
  if (others.length === 0) throw new Refusal('last-owner');
}

const NEW_FEED = { what: 'The private calendar', from: '', to: 'has another address' };

/** Whoever saw the business's calendar and may not any more knows its address: it gets another one. */
async function hideFeed(tx: Writing, before: Holds, after: Holds | null): Promise<readonly (typeof NEW_FEED)[]> {
  if (!mayDo(before, 'see') || (after && mayDo(after, 'see'))) return [];
  await raiseFeedVersion(tx);
  return [NEW_FEED];
}

/** Changes what somebody may do, from the next press on; every owner is told. @throws Refusal `last-owner`, `not-here` */
export const setRights = desk('people', { again: true }).turn(
  async (tx, personId: string, holds: Holds): Promise<void> => {
    const before = await here(tx, personId);
    const after = { role: holds.role, extra: extraBeyond(holds.role, holds.extra) };
    if (before.role === 'owner' && after.role !== 'owner') await requireOtherOwner(tx, personId);
    await updateRights(tx, personId, after);
    if (holdsText(before) !== holdsText(after))
      await noteSettings(tx, 'rights', [
        { what: before.name, from: holdsText(before), to: holdsText(after) },
        ...(await hideFeed(tx, before, after)),
      ]);
  },
);

async function end(tx: Writing, personId: string): Promise<void> {
  const person = await here(tx, personId);
  if (person.role === 'owner') await requireOtherOwner(tx, personId);
  await letGo(tx, personId);
  await noteSettings(tx, 'left', [
    { what: person.name, from: holdsText(person), to: 'not here any more' },
    ...(await hideFeed(tx, person, null)),
  ]);
}

/** Ends somebody's time here: they are signed out at once, and what they made keeps their name. @throws Refusal `last-owner`, `not-here` */
export const removePerson = desk('people', { again: true }).turn(
  (tx, personId: string): Promise<void> => end(tx, personId),
);

/** Leaves the business oneself. @throws Refusal `last-owner` */
export const leaveBusiness = desk('own').turn((tx): Promise<void> => end(tx, tx.personId));

/** What somebody who holds an invitation is shown. */
export type InvitationView = {
  readonly business: string;
  readonly byName: string;
  readonly holds: Holds;
  readonly email: string;
  /** Whether they are signed in with that address, sign in with it elsewhere, or are new. */
  readonly who: 'here' | 'known' | 'new';
  /** Whether somebody known has a second step, and so signs in before they accept. */
  readonly signsInFirst: boolean;
};

const isGood = (one: Invitation | null, seal: InvitationSeal, now: Date): one is Invitation =>
  one?.state === 'open' && one.nonce === seal.n && one.goodUntil > now;

/** The desks of an address that is known to be somebody's. */
const desksOf = async (house: House, email: string): Promise<SignInCandidate[]> =>
  (await house.outside((db) => signInCandidates(db, email))).filter(({ confirmed }) => confirmed);

/** Whose session it is, where that is somebody with this address. */
async function theirs(house: House, session: string, email: string): Promise<Actor | null> {
  const actor = session ? await actorOf(session) : null;
  if (!actor) return null;
  const person = await house.within(actor.businessId).read((db: Reading) => personWithEmail(db, actor.personId));
  const desks = await desksOf(house, email);
  const isIt =
    person?.email.toLowerCase() === email.toLowerCase() && desks.some(({ personId }) => personId === actor.personId);
  return isIt ? actor : null;
}

/** What an invitation's link is about; null for one that is over. @param session of whoever looks; empty for nobody */
export const lookAtInvitation = anybody({ tells: false }).run(
  async (house, token: string, session: string): Promise<InvitationView | null> => {
    const seal = unsealed<InvitationSeal>('invitation', token);
    if (!seal) return null;
    const view = await house.within(seal.b).read(async (db) => {
      const one = await invitationById(db, seal.i);
      return isGood(one, seal, db.now) ? { one, business: (await businessById(db)).name } : null;
    });
    if (!view) return null;
    const { one, business } = view;
    const who = (await theirs(house, session, one.email))
      ? 'here'
      : (await desksOf(house, one.email)).length > 0
        ? 'known'
        : 'new';
    const signsInFirst = who === 'known' && asksForStep(await house.outside((db) => ownSteps(db, one.email)));
    return { business, byName: one.byName, holds: one, email: one.email, who, signsInFirst };
  },
);

/** Who accepts: somebody with desks elsewhere, known by session or password, or somebody new with a name and a password. */
async function whoAccepts(
  house: House,
  email: string,
  given: { readonly name: string; readonly password: string; readonly session: string },
): Promise<{ name: string; hash: string; isNew: boolean; provedSeconds: number }> {
  const desks = await desksOf(house, email);
  const [first] = desks;
  if (!first) {
    if (!given.name.trim()) throw new Refusal('order-not-ready', [{ field: 'name', words: 'Write your name.' }]);
    await requireGoodPassword('password', given.password, [email, given.name]);
    return { name: given.name.trim(), hash: await passwordHash(given.password), isNew: true, provedSeconds: 0 };
  }
  const { name } = found(await house.within(first.businessId).read((db) => personWithEmail(db, first.personId)));
  const actor = await theirs(house, given.session, email);
  if (actor) return { name, hash: first.passwordHash, isNew: false, provedSeconds: actor.provedSeconds };
  // A password alone does not let them in anywhere.
  if (asksForStep(await house.outside((db) => ownSteps(db, email)))) throw new Refusal('sign-in-first');
  if ((await countAttempt(PASSWORDS, email.toLowerCase())) > 0) throw new Refusal('sign-in-too-often');
  if (!(await verify(first.passwordHash, given.password)))
    throw new Refusal('sign-in-failed', [{ field: 'password', words: 'This is not your password. Write it again.' }]);
  return { name, hash: first.passwordHash, isNew: false, provedSeconds: 0 };
}

/**
 * Joins the business that an invitation is for, once, and signs in there. The link came by mail: the address is theirs.
 *
 * @throws Refusal `link-over`, `here-already`, `password-weak`, `sign-in-failed`, `sign-in-too-often`, `address-signs-in`, `sign-in-first`
 */
export const acceptInvitation = anybody().run(
  async (
    house,
    token: string,
    given: { readonly name: string; readonly password: string; readonly session: string },
    from: From,
  ): Promise<OpenedSession & { readonly device: string }> => {
    const seal = unsealed<InvitationSeal>('invitation', token);
    if (!seal) throw new Refusal('link-over');
    const within = house.within(seal.b);
    const before = await within.read((db) => invitationById(db, seal.i));
    if (!isGood(before, seal, house.now)) throw new Refusal('link-over');
    const { email } = before;
    const { name, hash, isNew, provedSeconds } = await whoAccepts(house, email, given);
    const session = await house.within(seal.b, { name, personId: '' }).turn(async (tx) => {
      const one = await lockedInvitation(tx, seal.i);
      if (!isGood(one, seal, tx.now)) throw new Refusal('link-over');
      const personId = await join(tx, { name, email, role: one.role, extra: one.extra, passwordHash: hash }, isNew);
      await endInvitation(tx, one.id, 'accepted');
      await noteSettings(tx, 'joined', [{ what: name, from: '', to: holdsText(one) }]);
      return openSession(tx, personId, from, provedSeconds);
    });
    return { ...session, device: deviceSeal(email, null, house.now) };
  },
);

type Joining = {
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly extra: readonly ExtraRight[];
  readonly passwordHash: string;
};

async function join(tx: Writing, person: Joining, isNew: boolean): Promise<string> {
  const there = await personByEmail(tx, person.email);
  if (there && !there.leftAt) throw new Refusal('here-already');
  if (there) {
    await takeBack(tx, there.id, person);
    return there.id;
  }
  const id = randomUUID();
  const fresh = { ...person, id, businessId: tx.businessId };
  if (!isNew) await insertPerson(tx, fresh);
  else {
    // Somebody may be confirming the same address at this moment: one of both has it first.
    await insertUnconfirmed(tx, fresh);
    if (!(await claimName(tx, id, person.email))) throw new Refusal('address-signs-in');
  }
  return id;
}

/** Telling and showing who stands behind the business, for the office that looks at it. */
import { randomUUID } from 'node:crypto';
import { dateInZone } from '@/core/dates/zone';
import { MOST_FILE_BYTES } from '@/core/file/size';
import {
  type IdentityProblem,
  isOpen,
  type Member,
  MOST_MEMBERS,
  memberProblems,
  missingPictures,
  type Side,
} from '@/core/identity/identity';
import { businessById } from '@/db/businesses';
import {
  checksSince,
  type IdentityCheck,
  identityMembers,
  insertCheck,
  keepPicture,
  latestCheck,
  type PictureThere,
  picturesThere,
  replaceMembers,
} from '@/db/identity';
import type { Db } from '@/db/pool';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { noteChange } from '@/flows/log/log';
import { fileKind } from '@/outside/file-kind';
import { cleanPicture } from '@/outside/pictures';
import { countryList } from '@/outside/places';
import { closedPicture, openPicture } from './pictures';

/** What is told and shown so far, and how the check stands. */
export type IdentityView = {
  readonly members: readonly Member[];
  readonly pictures: readonly PictureThere[];
  readonly check: Pick<IdentityCheck, 'state' | 'reason' | 'sentAt' | 'decidedAt'> | null;
  /** Since when it is known who stands behind the business. */
  readonly verifiedAt: Date | null;
  /** What is still missing; none where it can be sent. */
  readonly missing: readonly string[];
  /** Where somebody can live. */
  readonly countries: readonly { readonly code: string; readonly name: string }[];
};

async function missing(db: Db, members: readonly Member[]): Promise<string[]> {
  const { zone } = await businessById(db);
  const there = await picturesThere(db);
  const has = (memberId: string, side: Side) => there.some((one) => one.memberId === memberId && one.side === side);
  return [
    ...memberProblems(members, dateInZone(db.now, zone)).map(({ words }) => words),
    ...missingPictures(members, has).map(({ words }) => words),
  ];
}

/** Documents and faces are the owners' to see. */
export const identityView = desk('people').read(async (db): Promise<IdentityView> => {
  const members = await identityMembers(db);
  const { verifiedAt, paperLocale: locale } = await businessById(db);
  return {
    members,
    pictures: await picturesThere(db),
    check: await latestCheck(db),
    verifiedAt,
    missing: await missing(db, members),
    countries: countryList(locale),
  };
});

/** @throws Refusal `identity-closed` while the office looks at it, and once it is known */
async function requireOpen(db: Db): Promise<void> {
  const check = await latestCheck(db, true);
  const { verifiedAt } = await businessById(db);
  if (verifiedAt || !isOpen(check?.state ?? null)) throw new Refusal('identity-closed');
}

/** Keeps who stands behind the business, as far as it is told; what is wrong with it is said and kept nevertheless. @throws Refusal `identity-closed` */
export const keepMembers = desk('people').turn(
  async (tx, members: readonly Member[]): Promise<readonly IdentityProblem[]> => {
    await requireOpen(tx);
    await replaceMembers(tx, members.slice(0, MOST_MEMBERS));
    const { zone } = await businessById(tx);
    return memberProblems(members, dateInZone(tx.now, zone));
  },
);

/** So many pixels are enough to read the smallest print of a document. */
const LARGEST_SIDE = 2200;

/**
 * Keeps a picture of somebody, drawn anew and encrypted; the one before goes.
 *
 * @throws Refusal `identity-closed`, `file-not-taken`, `file-too-large`, `not-found`
 */
export const showPicture = desk('people').run(
  async (ctx, memberId: string, side: Side, bytes: Buffer): Promise<void> => {
    if (bytes.length > MOST_FILE_BYTES) throw new Refusal('file-too-large');
    const kind = bytes.length > 0 ? await fileKind(bytes) : null;
    if (!kind?.type.startsWith('image/')) throw new Refusal('file-not-taken');
    const clean = await cleanPicture(bytes, 'jpeg', LARGEST_SIDE).catch(() => {
      throw new Refusal('file-not-taken');
    });
    await ctx.turn(async (tx) => {
      await requireOpen(tx);
      found((await identityMembers(tx)).find(({ id }) => id === memberId));
      const which = { memberId, side };
      await keepPicture(tx, which, closedPicture(tx.businessId, which, clean));
    });
  },
);

/** A picture, for an owner; that it was looked at stands in the log. @throws Refusal `not-found` */
export const identityPicture = desk('people', { tells: false }).write(
  async (tx, memberId: string, side: Side): Promise<Buffer> => {
    const bytes = found(await openPicture(tx, { memberId, side }));
    const member = found((await identityMembers(tx)).find(({ id }) => id === memberId));
    await noteChange(tx, 'identity-seen', [{ what: member.name, from: '', to: side }]);
    return bytes;
  },
);

const DAY_MS = 86_400_000;
const MOST_A_DAY = 5;

/**
 * Sends what is told and shown to the office. The worker carries it there, once, however often it is pressed.
 *
 * @throws Refusal `identity-closed`, `identity-not-whole`, `asked-too-often`, `prove-again`
 */
export const sendIdentity = desk('people', { again: true }).turn(async (tx): Promise<void> => {
  const check = await latestCheck(tx, true);
  // Pressed twice: it is on its way.
  if (check?.state === 'checking') return;
  await requireOpen(tx);
  const members = await identityMembers(tx);
  const wrong = await missing(tx, members);
  if (wrong.length > 0) throw new Refusal('identity-not-whole', [{ field: 'members', words: wrong[0] ?? '' }]);
  if ((await checksSince(tx, new Date(tx.now.getTime() - DAY_MS))) >= MOST_A_DAY) throw new Refusal('asked-too-often');
  await insertCheck(tx, { id: randomUUID(), byName: tx.name });
  const names = members.map(({ name }) => name).join(', ');
  await noteChange(tx, 'identity', [{ what: 'Sent to the office', from: '', to: names }]);
});

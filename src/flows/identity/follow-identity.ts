/** Carries a check to the office, asks what became of it, and takes the pictures away after their time. */
import { goneFrom } from '@/core/identity/identity';
import { businessById, openPayouts } from '@/db/businesses';
import {
  forgetPictures,
  type IdentityCheck,
  identityMembers,
  latestCheck,
  picturesThere,
  updateCheck,
} from '@/db/identity';
import { ownersOf } from '@/db/people';
import type { Context, Writing } from '@/flows/door/operation';
import { noteChange } from '@/flows/log/log';
import { queueMessages } from '@/flows/message/queue-message';
import type { CheckAnswer, ShownPerson } from '@/outside/identity';
import { services } from '@/outside/services';
import { openPicture } from './pictures';

const LOOK_AGAIN_MS = 3 * 3_600_000;
const SILENT_MS = 5 * 60_000;

async function shownPeople(ctx: Context): Promise<{ business: string; about: string; people: ShownPerson[] }> {
  return ctx.read(async (db) => {
    const there = await picturesThere(db);
    const people: ShownPerson[] = [];
    for (const { id, name, born, country } of await identityMembers(db)) {
      const pictures: ShownPerson['pictures'][number][] = [];
      for (const which of there.filter(({ memberId }) => memberId === id)) {
        const bytes = await openPicture(db, which);
        if (bytes) pictures.push({ side: which.side, bytes });
      }
      people.push({ name, born, country, pictures });
    }
    const { name, description, website } = await businessById(db);
    return { business: name, about: [description, website].filter(Boolean).join(' · '), people };
  });
}

/** Every owner hears what was decided. */
async function tell(tx: Writing, check: IdentityCheck, { state, reason }: CheckAnswer): Promise<void> {
  const owners = await ownersOf(tx);
  await queueMessages(
    tx,
    owners.map((owner) => ({
      kind: 'identity' as const,
      key: `identity:${check.id}:${state}:${owner.id}`,
      toName: owner.name,
      toAddress: owner.email,
      details: { outcome: state, ...(reason ? { reason } : {}) },
    })),
  );
}

const OUTCOME = { asked: 'asked anew', accepted: 'accepted', refused: 'refused', checking: 'being looked at' } as const;

async function decided(tx: Writing, check: IdentityCheck, answer: CheckAnswer): Promise<void> {
  const { state, reason } = answer;
  await updateCheck(tx, check.id, { state, reason, decidedAt: tx.now, actAt: goneFrom(tx.now) });
  if (state === 'accepted') await openPayouts(tx);
  await noteChange(tx, 'identity', [{ what: 'The office', from: OUTCOME.checking, to: OUTCOME[state] }]);
  await tell(tx, check, answer);
}

/** Whatever is to be done by now about who stands behind the business; run again, it does nothing twice. */
export async function followIdentity(ctx: Context): Promise<void> {
  const check = await ctx.read((db) => latestCheck(db));
  if (!check?.actAt || check.actAt > ctx.now) return;
  if (check.state !== 'checking') {
    await ctx.turn(async (tx) => {
      await forgetPictures(tx);
      const { state, reason, decidedAt } = check;
      await updateCheck(tx, check.id, { state, reason, decidedAt, actAt: null });
    });
    return;
  }
  const { identity } = services();
  const key = `${ctx.businessId}.${check.id}`;
  const known = await identity.checkOf(key);
  // What the office has never seen is sent: the key makes it one check.
  const answer = known === 'never-seen' ? await identity.begin({ key, ...(await shownPeople(ctx)) }) : known;
  const later = await ctx.later();
  await later.turn(async (tx) => {
    const now = await latestCheck(tx, true);
    if (now?.id !== check.id || now.state !== 'checking') return;
    if (answer && answer.state !== 'checking') await decided(tx, check, answer);
    else {
      const actAt = new Date(tx.now.getTime() + (answer ? LOOK_AGAIN_MS : SILENT_MS));
      await updateCheck(tx, check.id, { state: 'checking', reason: null, decidedAt: null, actAt });
    }
  });
}

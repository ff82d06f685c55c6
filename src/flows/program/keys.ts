/** Keys by which other programs come in: made, shown once, ended; and who comes in by one. */
import { createHash, randomUUID } from 'node:crypto';
import { KEY_RIGHT_WORDS, type KeyRight, keyMay, MOST_KEY_DAYS, REQUESTS_A_MINUTE } from '@/core/program/key';
import { type Limit, type Spent, spendAttempt } from '@/db/limits';
import { beginningOf, newToken } from '@/db/link-tokens';
import { endKeyAt, insertKey, keyById, keyHolder, keysOpen, type ProgramKey, touchKey } from '@/db/program-keys';
import { anybody, desk, type Writing } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { type Actor, found } from '@/flows/door/rights';
import { noteSettings } from '@/flows/log/log';

export type { ProgramKey };

const DAY_MS = 86_400_000;
const MOST_KEYS = 20;
/** A key says that it is used this often at most. */
const TOUCH_SECONDS = 60;

const hashOf = (key: string): Buffer => createHash('sha256').update(key).digest();
const called = (rights: readonly KeyRight[]): string => rights.map((right) => KEY_RIGHT_WORDS[right]).join('; ');
const note = (tx: Writing, name: string, from: string, to: string): Promise<void> =>
  noteSettings(tx, 'keys', [{ what: `Key “${name}”`, from, to }]);

/** The keys that were not ended; those whose time is over among them. */
export const keysView = desk('people').read((db): Promise<ProgramKey[]> => keysOpen(db));

/**
 * Makes a key. @returns it, told this once
 *
 * @param days for how many it is good
 * @throws Refusal `keys-enough`, `prove-again`
 */
export const makeKey = desk('people', { again: true }).turn(
  async (
    tx,
    { name, rights, days }: { readonly name: string; readonly rights: readonly KeyRight[]; readonly days: number },
  ): Promise<{ readonly key: string }> => {
    if ((await keysOpen(tx)).length >= MOST_KEYS) throw new Refusal('keys-enough');
    const key = newToken(tx.businessId, 32);
    const goodUntil = new Date(tx.now.getTime() + Math.min(days, MOST_KEY_DAYS) * DAY_MS);
    await insertKey(tx, { id: randomUUID(), name, rights, goodUntil, secretHash: hashOf(key), personId: tx.personId });
    await note(tx, name, '', `${called(rights)}; good until ${goodUntil.toISOString().slice(0, 10)}`);
    return { key };
  },
);

/** Ends a key: nobody comes in by it any more. @throws Refusal `not-found`, `prove-again` */
export const endKey = desk('people', { again: true }).turn(async (tx, id: string): Promise<void> => {
  const { name, rights } = found(await keyById(tx, id));
  if ((await endKeyAt(tx, id)) === 1) await note(tx, name, called(rights), '');
});

/** A program that came in. */
export type Program = { readonly actor: Actor; readonly keyId: string };

/**
 * Who comes in by a key; null for one that is not good. A program acts in its key's name, and may what the key says as far as whoever
 * made it still may that.
 */
export const programOf = anybody({ tells: false }).run(async (house, key: string): Promise<Program | null> => {
  if (!/^[\w-]{20,200}$/.test(key)) return null;
  const holder = await house.outside((db) => keyHolder(db, { begins: beginningOf(key), hash: hashOf(key) }, house.now));
  if (!holder) return null;
  const { businessId, keyId, name, rights, personId, unusedSeconds, closed } = holder;
  if (unusedSeconds === null || unusedSeconds > TOUCH_SECONDS)
    await house.within(businessId).write((tx) => touchKey(tx, keyId));
  return {
    keyId,
    actor: {
      businessId,
      personId,
      name,
      role: 'program',
      extra: keyMay(rights, holder),
      // What is asked for again is asked of people.
      provedSeconds: Number.POSITIVE_INFINITY,
      lacksStep: false,
      closed,
    },
  };
});

const REQUESTS: Limit = { name: 'program-requests', attempts: REQUESTS_A_MINUTE, seconds: 60 };
const WRONG: Limit = { name: 'wrong-keys', attempts: 30, seconds: 600 };

/** Counts one request of a key. */
export const spendRequest = anybody({ tells: false }).run(
  (_house, keyId: string): Promise<Spent> => spendAttempt(REQUESTS, keyId),
);

/** Counts one key that is not good, by where it came from. */
export const spendWrongKey = anybody({ tells: false }).run(
  (_house, address: string): Promise<Spent> => spendAttempt(WRONG, address),
);

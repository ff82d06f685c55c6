import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { countAttempt, forgetAttempts, type Limit } from '@/db/limits';
import { beginningOf, newToken } from '@/db/link-tokens';
import { type Actor, endSession, insertSession, sessionHolder, signInCandidate } from '@/db/people';
import { anybody, desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';

const PER_ADDRESS: Limit = { name: 'sign-in-address', attempts: 30, seconds: 900 };
const PER_PERSON: Limit = { name: 'sign-in-person', attempts: 8, seconds: 900 };
export const SESSION_DAYS = 14;

const hashOf = (token: string): Buffer => createHash('sha256').update(token).digest();

/** argon2id with the library's recommended cost. */
export const passwordHash = (password: string): Promise<string> => hash(password);

// Verified against where nobody has the address, so that both answers take the same time.
let nobody: Promise<string> | undefined;

/**
 * Opens a session.
 *
 * @param address the network address that tries, for the limit only
 * @returns the secret for the cookie; the database keeps its hash
 * @throws Refusal `sign-in-failed`, `sign-in-too-often`
 */
export const signIn = anybody({ tells: false }).run(
  async (house, email: string, password: string, address: string): Promise<{ token: string; expiresAt: Date }> => {
    const person = email.trim().toLowerCase();
    const waits = await Promise.all([countAttempt(PER_ADDRESS, address), countAttempt(PER_PERSON, person)]);
    if (waits.some((seconds) => seconds > 0)) throw new Refusal('sign-in-too-often');
    const candidate = await house.outside((db) => signInCandidate(db, person));
    nobody ??= passwordHash(randomBytes(16).toString('hex'));
    const right = await verify(candidate?.passwordHash ?? (await nobody), password);
    if (!candidate || !right) throw new Refusal('sign-in-failed');
    await forgetAttempts(PER_PERSON, person);
    const { businessId, personId } = candidate;
    const token = newToken(businessId, 32);
    const { now } = house;
    const expiresAt = new Date(now.getTime() + SESSION_DAYS * 86_400_000);
    await house
      .within(businessId)
      .write((tx) => insertSession(tx, { tokenHash: hashOf(token), businessId, personId, createdAt: now, expiresAt }));
    return { token, expiresAt };
  },
);

/** Who holds this session; null where it has ended. */
export const actorOf = anybody().run(
  async (house, token: string): Promise<Actor | null> =>
    house.outside((db) => sessionHolder(db, { begins: beginningOf(token), hash: hashOf(token) }, house.now)),
);

/** Ends the session, here and for the database. */
export const signOut = desk('see', { tells: false }).write(async (tx, token: string): Promise<void> => {
  await endSession(tx, tx.personId, hashOf(token));
});

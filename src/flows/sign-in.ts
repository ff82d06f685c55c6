import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { countAttempt, forgetAttempts, type Limit } from '@/db/limits';
import { type Actor, endSession, insertSession, sessionHolder, signInCandidate } from '@/db/people';
import { inBusiness, outsideBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { Refusal } from './refusal';

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
export async function signIn(
  email: string,
  password: string,
  address: string,
): Promise<{ token: string; expiresAt: Date }> {
  const person = email.trim().toLowerCase();
  const waits = await Promise.all([countAttempt(PER_ADDRESS, address), countAttempt(PER_PERSON, person)]);
  if (waits.some((seconds) => seconds > 0)) throw new Refusal('sign-in-too-often');
  const candidate = await outsideBusiness((db) => signInCandidate(db, person));
  nobody ??= passwordHash(randomBytes(16).toString('hex'));
  const right = await verify(candidate?.passwordHash ?? (await nobody), password);
  if (!candidate || !right) throw new Refusal('sign-in-failed');
  await forgetAttempts(PER_PERSON, person);
  const token = randomBytes(32).toString('base64url');
  const now = await services().clock.now();
  const expiresAt = new Date(now.getTime() + SESSION_DAYS * 86_400_000);
  const { businessId, personId } = candidate;
  await inBusiness(businessId, (tx) =>
    insertSession(tx, { tokenHash: hashOf(token), businessId, personId, createdAt: now, expiresAt }),
  );
  return { token, expiresAt };
}

/** Who holds this session; null where it has ended. */
export async function actorOf(token: string): Promise<Actor | null> {
  const now = await services().clock.now();
  return outsideBusiness((db) => sessionHolder(db, hashOf(token), now));
}

/** Ends the session, here and for the database. */
export async function signOut(actor: Actor, token: string): Promise<void> {
  const now = await services().clock.now();
  await inBusiness(actor.businessId, (tx) => endSession(tx, actor, hashOf(token), now));
}

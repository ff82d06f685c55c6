/** Where somebody is signed in: how a session begins, and what stands for one in an address. */
import { createHash } from 'node:crypto';
import { newToken } from '@/db/link-tokens';
import { endSession, insertSession } from '@/db/people';
import type { Writing } from '@/flows/door/operation';

export const SESSION_DAYS = 14;
/** A session that nobody used for so long has ended, in seconds of the computer's own time. */
export const IDLE_SECONDS = 12 * 3600;

/** What the database has of a secret. */
export const hashOf = (token: string): Buffer => createHash('sha256').update(token).digest();

/** From where somebody comes: the network's address, and what their program says that it is. */
export type From = { readonly address: string; readonly agent: string };

/** A session that has just begun: the secret for its cookie, of which the database keeps the hash. */
export type OpenedSession = { readonly token: string; readonly expiresAt: Date };

/**
 * Opens a session of a person of this business.
 *
 * @param provedSeconds since they showed who they are: just now, unless they come over from another session
 */
export async function openSession(
  tx: Writing,
  personId: string,
  from: From,
  provedSeconds = 0,
): Promise<OpenedSession> {
  const { businessId, now } = tx;
  const token = newToken(businessId, 32);
  const expiresAt = new Date(now.getTime() + SESSION_DAYS * 86_400_000);
  const { address, agent } = from;
  const session = { tokenHash: hashOf(token), businessId, personId, createdAt: now, expiresAt };
  await insertSession(tx, { ...session, address, agent: agent.slice(0, 300), provedSeconds });
  return { token, expiresAt };
}

/** Ends a session by its secret. */
export const endPlace = (tx: Writing, personId: string, token: string): Promise<number> =>
  endSession(tx, personId, hashOf(token));

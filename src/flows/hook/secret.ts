/** Secrets by which another program knows that it is told by us. */
import { createHmac, randomBytes } from 'node:crypto';
import type { Hook } from '@/db/hooks';
import { decrypted, encrypted } from '@/outside/sealing';

const SECRET_BYTES = 32;

/** A new secret, as it is shown once. */
export const newSecret = (): string => randomBytes(SECRET_BYTES).toString('base64url');

export const sealedSecret = (hookId: string, secret: string): Buffer =>
  encrypted('hook-secret', hookId, Buffer.from(secret));

/** The secrets that are good: the present one, and the one before while it is. */
export function openSecrets({ id, secret, earlierSecret, earlierUntil }: Hook, now: Date): string[] {
  const all = [secret, ...(earlierSecret && earlierUntil && earlierUntil > now ? [earlierSecret] : [])];
  return all.map((sealed) => decrypted('hook-secret', id, sealed).toString());
}

/** HMAC-SHA-256 in hexadecimal over `time.body`, under a secret. @param time whole seconds since 1970 */
export const hookSignature = (secret: string, time: number, body: string): string =>
  createHmac('sha256', secret).update(`${time}.${body}`).digest('hex');

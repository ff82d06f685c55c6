/** What was answered to a request under a key of its own is answered again: sent twice, it is done once. */
import { createHash } from 'node:crypto';
import { answerOf, beginAnswer, dropAnswer, keepAnswer, type RequestKey } from '@/db/program-keys';
import { desk } from '@/flows/door/operation';

export type Remembered =
  | { readonly kind: 'new' }
  | { readonly kind: 'again'; readonly status: number; readonly body: unknown }
  /** Worked on by another at this moment, or broken off in the middle. */
  | { readonly kind: 'unknown' }
  /** The same key with another question. */
  | { readonly kind: 'other' };

/** Takes a request up, or finds what was answered to it before. @param asked all that makes it this request */
export const takeUp = desk('see').write(async (tx, of: RequestKey, asked: string): Promise<Remembered> => {
  const fingerprint = createHash('sha256').update(asked).digest();
  if (await beginAnswer(tx, of, fingerprint)) return { kind: 'new' };
  const before = await answerOf(tx, of);
  if (!before) return { kind: 'new' };
  if (!before.fingerprint.equals(fingerprint)) return { kind: 'other' };
  return before.status === null ? { kind: 'unknown' } : { kind: 'again', status: before.status, body: before.body };
});

/** Keeps what is answered. */
export const keepAnswered = desk('see').write(
  async (tx, of: RequestKey, status: number, body: unknown): Promise<void> => {
    await keepAnswer(tx, of, status, body);
  },
);

/** Lets a request be sent again that was refused before anything was done. */
export const letGo = desk('see').write(async (tx, of: RequestKey): Promise<void> => {
  await dropAnswer(tx, of);
});

import { createHmac, timingSafeEqual } from 'node:crypto';
import { services } from '@/outside/services';

/** What is signed: each purpose has signatures of its own, so that none passes for another. */
export type Purpose =
  | 'served'
  | 'quote'
  | 'request'
  | 'rehearsal'
  | 'own-page'
  | 'approver'
  | 'partner-page'
  | 'calendar'
  | 'voucher'
  | 'device'
  | 'confirm'
  | 'password'
  | 'figures'
  | 'session'
  | 'invitation'
  | 'lost-steps'
  | 'old-address'
  | 'new-address'
  | 'half'
  | 'challenge'
  | 'new-app'
  | 'recovery';

/** A signature of a text for one purpose, HMAC-SHA256 in base64url. */
export const signatureOf = (purpose: Purpose, text: string): string =>
  createHmac('sha256', services().filesSecret).update(`${purpose}\n${text}`).digest('base64url');

/** Whether a signature is ours, compared in constant time. */
export function isSigned(purpose: Purpose, text: string, signature: string): boolean {
  const wanted = Buffer.from(signatureOf(purpose, text));
  const given = Buffer.from(signature);
  return given.length === wanted.length && timingSafeEqual(given, wanted);
}

/** A value with its signature, to be handed out and taken back unaltered. */
export function sealed(purpose: Purpose, value: unknown): string {
  const text = Buffer.from(JSON.stringify(value)).toString('base64url');
  return `${text}.${signatureOf(purpose, text)}`;
}

/** What a sealed text holds; null for one that is not ours. */
export function unsealed<T>(purpose: Purpose, given: string): T | null {
  const [text = '', signature = '', ...more] = given.split('.');
  if (more.length > 0 || !text || !isSigned(purpose, text, signature)) return null;
  return JSON.parse(Buffer.from(text, 'base64url').toString()) as T;
}

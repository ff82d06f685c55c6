/** Codes of an authenticator app: RFC 6238 with SHA-1, six figures, 30 seconds, which every app can. */
import { Secret, TOTP } from 'otpauth';

/** So many steps before and after the present one are taken: clocks of phones differ, and people type slowly. */
const WINDOW = 1;
const PERIOD = 30;
const KEY_BYTES = 20;

const codes = (key: Uint8Array, label = ''): TOTP =>
  new TOTP({
    issuer: 'Dahlia',
    label,
    algorithm: 'SHA1',
    digits: 6,
    period: PERIOD,
    secret: new Secret({ buffer: Uint8Array.from(key).buffer }),
  });

/** A new key for an app: 160 bits, as RFC 4226 recommends. */
export const newTimeKey = (): Buffer => Buffer.from(new Secret({ size: KEY_BYTES }).bytes);

/** A key as an app takes it: typed, in groups of four; and as the address in its code. @param label whose it is, shown in the app */
export function appKey(key: Uint8Array, label: string): { readonly typed: string; readonly address: string } {
  const made = codes(key, label);
  return { typed: made.secret.base32.replace(/(.{4})(?=.)/g, '$1 '), address: made.toString() };
}

/**
 * Which step a code belongs to, counted from 1970 in 30 seconds; null for one that is wrong or old.
 *
 * @param typed may have spaces
 * @param at by the computer's own clock: phones know of no other
 */
export function stepOfCode(key: Uint8Array, typed: string, at: Date): bigint | null {
  const token = typed.replace(/\D/g, '');
  if (token.length !== 6) return null;
  const delta = codes(key).validate({ token, window: WINDOW, timestamp: at.getTime() });
  return delta === null ? null : BigInt(Math.floor(at.getTime() / 1000 / PERIOD) + delta);
}

/** Recovery codes: ten, each good once, for who has neither app nor passkey at hand. */

/** Crockford's base 32: no letter in it is taken for another, or for a figure. */
const SIGNS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
export const RECOVERY_CODES = 10;
/** Random bytes that a code is made of; one is 50 bits. */
export const RECOVERY_BYTES = 10;
const HALF = RECOVERY_BYTES / 2;

const inHalves = (signs: string): string => `${signs.slice(0, HALF)}-${signs.slice(HALF)}`;

/** A code as it is shown, `7K3QA-9XT0M`. @param bytes ten random ones */
export const recoveryCode = (bytes: Uint8Array): string =>
  inHalves([...bytes.slice(0, RECOVERY_BYTES)].map((byte) => SIGNS[byte % SIGNS.length]).join(''));

/** A code as somebody typed it, in small letters, without its dash, an O for a 0; null for what is none. */
export function readRecoveryCode(typed: string): string | null {
  const signs = typed
    .toUpperCase()
    .replace(/[\s\-–—.]/g, '')
    .replace(/O/g, '0')
    .replace(/[IL]/g, '1');
  return signs.length === RECOVERY_BYTES && [...signs].every((sign) => SIGNS.includes(sign)) ? inHalves(signs) : null;
}

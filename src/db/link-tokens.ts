import { randomBytes } from 'node:crypto';

/** The letters with which all links and sessions of a business begin, so that its rows are looked for in one place: 48 bits of its id. */
export const linkKey = (businessId: string): string =>
  Buffer.from(businessId.replaceAll('-', '').slice(0, 12), 'hex').toString('base64url');

/** A new secret of a business that opens something: its key, then so many random bytes. 40 letters of base64url for 24 bytes. */
export const newToken = (businessId: string, bytes = 24): string =>
  linkKey(businessId) + randomBytes(bytes).toString('base64url');

/** The part of a token that says whose it is, and is no secret. */
export const beginningOf = (token: string): string => token.slice(0, 8);

import { createHash, createHmac } from 'node:crypto';

/** The secret that signs tickets; the database keeps it where only the check of a ticket reads it. @throws Error where it is not set */
export function ticketSecret(): string {
  const secret = process.env.TICKET_SECRET;
  if (!secret) throw new Error('TICKET_SECRET is not set');
  return secret;
}

/**
 * What a transaction shows to see the rows of one business: `BUSINESS.HMAC`, the HMAC-SHA-256 in hexadecimal of `BUSINESS.PROCESS`.
 * Good on the connection of that process only.
 *
 * @param processId the number of the connection's process at the database's server
 */
export const ticketFor = (businessId: string, processId: number, secret = ticketSecret()): string =>
  `${businessId}.${createHmac('sha256', secret).update(`${businessId}.${processId}`).digest('hex')}`;

const BLOCK = 64;

/** The two pads of HMAC-SHA-256 (RFC 2104) for a secret, from which the database works out the same signature. */
export function hmacPads(secret: string): { inner: Buffer; outer: Buffer } {
  const given = Buffer.from(secret);
  const key = Buffer.alloc(BLOCK);
  (given.length > BLOCK ? createHash('sha256').update(given).digest() : given).copy(key);
  return { inner: key.map((byte) => byte ^ 0x36) as Buffer, outer: key.map((byte) => byte ^ 0x5c) as Buffer };
}

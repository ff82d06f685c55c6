import { createHmac, timingSafeEqual } from 'node:crypto';

const OLDEST_SECONDS = 300;

/** Whether an event was signed with the secret a short while ago: HMAC-SHA256 over `TIME.BODY` in hexadecimal. */
export function isGenuineEvent(secret: string, time: string, signature: string, body: string): boolean {
  const age = Math.abs(Date.now() / 1000 - Number(time));
  if (!(age < OLDEST_SECONDS)) return false;
  const expected = createHmac('sha256', secret).update(`${time}.${body}`).digest();
  const given = Buffer.from(signature, 'hex');
  return given.length === expected.length && timingSafeEqual(given, expected);
}

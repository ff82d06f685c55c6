/** Coming in, once somebody has shown all that is asked: the session, its place in the log, and what their computer carries from then on. */
import { randomBytes } from 'node:crypto';
import { personWithEmail } from '@/db/people';
import type { House } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { sealed, unsealed } from '@/flows/door/signing';
import { noteAccess } from '@/flows/log/log';
import { queueMessage } from '@/flows/message/queue-message';
import { type From, hashOf, type OpenedSession, openSession } from './session';

export const DEVICE_DAYS = 400;

/** An address as somebody is known by. */
export const nameOf = (email: string): string => email.trim().toLowerCase();

/** What a computer on which somebody signed in carries: whose it is, and a number of its own. */
type DeviceSeal = { readonly p: string; readonly d: string; readonly until: number };

/** The number of a computer on which this person has signed in before; null for any other. */
export function knownDevice(device: string, person: string, now: Date): string | null {
  const seal = device ? unsealed<DeviceSeal>('device', device) : null;
  return seal && seal.p === hashOf(person).toString('hex') && seal.until > now.getTime() ? seal.d : null;
}

/** What this person's computer carries from now on. @param own its number, where it has one */
export function deviceSeal(email: string, own: string | null, now: Date): string {
  const until = now.getTime() + DEVICE_DAYS * 86_400_000;
  const p = hashOf(nameOf(email)).toString('hex');
  return sealed('device', { p, d: own ?? randomBytes(12).toString('hex'), until } satisfies DeviceSeal);
}

/** A session, and what the computer carries from now on. */
export type SignedIn = OpenedSession & { readonly device: string };

/** Whose desk it is. */
export type Desk = { readonly businessId: string; readonly personId: string; readonly confirmed: boolean };

/**
 * Opens a session at a desk. Who comes from a computer that is not known of them is told so by mail, where the address is theirs.
 *
 * @param own the computer's number, where it is known
 */
export async function enter(
  house: House,
  { businessId, personId, confirmed }: Desk,
  email: string,
  from: From,
  own: string | null,
): Promise<SignedIn> {
  const { address, agent } = from;
  const session = await house.within(businessId).write(async (tx) => {
    const opened = await openSession(tx, personId, from);
    const { name, email: toAddress } = found(await personWithEmail(tx, personId));
    await noteAccess(tx, 'signed-in', { personId, name }, address);
    if (!own && confirmed) {
      const key = `new-sign-in:${hashOf(opened.token).toString('hex')}`;
      await queueMessage(tx, { kind: 'new-sign-in', key, toName: name, toAddress, details: { address, agent } });
    }
    return opened;
  });
  return { ...session, device: deviceSeal(email, own, house.now) };
}

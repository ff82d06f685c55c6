import { services } from '@/outside/services';
import { sealed, unsealed } from '../signing';

/** How long a link to a customer's own page is good. */
const DAYS = 7;

type Opens = { readonly b: string; readonly c: string; readonly until: number };

/** The address of a customer's own page, good for seven days from `now`. */
export const ownPageLink = (businessId: string, customerId: string, now: Date): string =>
  `${services().publicUrl}/m/${ownPageToken(businessId, customerId, now)}`;

export const ownPageToken = (businessId: string, customerId: string, now: Date): string =>
  sealed('own-page', { b: businessId, c: customerId, until: now.getTime() + DAYS * 86_400_000 } satisfies Opens);

/** Whose page a token opens, and whether its time is over; null for one that is not ours. */
export function openedBy(token: string, now: Date): { businessId: string; customerId: string; over: boolean } | null {
  const opens = unsealed<Opens>('own-page', token);
  return opens && { businessId: opens.b, customerId: opens.c, over: opens.until < now.getTime() };
}

import type { OwnPageSeal } from '@/flows/door/links';
import { sealed } from '@/flows/door/signing';
import { services } from '@/outside/services';

/** How long a link to a customer's own page is good. */
const DAYS = 7;

/** The address of a customer's own page, good for seven days from `now`. */
export const ownPageLink = (businessId: string, customerId: string, now: Date): string =>
  `${services().publicUrl}/m/${ownPageToken(businessId, customerId, now)}`;

export const ownPageToken = (businessId: string, customerId: string, now: Date): string =>
  sealed('own-page', { b: businessId, c: customerId, until: now.getTime() + DAYS * 86_400_000 } satisfies OwnPageSeal);

/** Where the customer looks at a plan and begins it. */
export const planLink = (token: string): string => `${services().publicUrl}/a/${token}`;

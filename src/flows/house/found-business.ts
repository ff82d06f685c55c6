import { type FirstSetting, pricesUsuallyIncludeTax } from '@/core/beginning/first-setting';
import { NEW_PROFILE, type NewBusiness } from '@/core/business/business';
import { businessById, insertBusiness, insertCounter } from '@/db/businesses';
import { insertPerson, insertUnconfirmed } from '@/db/people';
import type { Writing } from '@/flows/door/operation';
import { writeSample } from '@/flows/invoice/draft';
import { noteAccess } from '@/flows/log/log';

/** What is said of a business that begins. */
export type Beginning = FirstSetting & { readonly business: string; readonly email: string };

/** What stands in a business that has just begun. */
export const newBusiness = (id: string, asked: Beginning, now: Date): NewBusiness => ({
  ...NEW_PROFILE,
  id,
  name: asked.business,
  address: [],
  phone: '',
  email: asked.email,
  website: '',
  taxNumber: '',
  country: asked.country,
  zone: asked.zone,
  paperLocale: asked.locale,
  currency: asked.currency,
  pricesIncludeTax: pricesUsuallyIncludeTax(asked.country),
  smallestPayments: {},
  place: { ...NEW_PROFILE.place, country: asked.country },
  signedUpAt: now,
});

/**
 * Writes a business down with its first owner and a half-written invoice. The owner's address is theirs where the business may send
 * at once, and has yet to be confirmed where it may not.
 *
 * @param address the network address from which it was founded
 * @returns the invoice's id
 */
export async function foundBusiness(
  tx: Writing,
  business: NewBusiness,
  owner: { readonly id: string; readonly name: string; readonly email: string; readonly passwordHash: string },
  address: string,
): Promise<string> {
  await insertBusiness(tx, business);
  const person = { ...owner, businessId: business.id, role: 'owner' as const };
  await (business.mailConfirmedAt ? insertPerson : insertUnconfirmed)(tx, person);
  for (const series of ['invoice', 'receipt']) await insertCounter(tx, series, 1n);
  await noteAccess(tx, 'signed-up', { personId: owner.id, name: owner.name }, address);
  return writeSample(tx, await businessById(tx));
}

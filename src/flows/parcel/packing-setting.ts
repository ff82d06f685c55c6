import { type Business, homePlace } from '@/core/business/business';
import { dateInZone } from '@/core/dates/zone';
import { converted } from '@/core/money/convert';
import { money } from '@/core/money/money';
import { rateBetween } from '@/core/money/rates';
import { type PackingSetting, ruledProfile } from '@/core/parcel/packed';
import type { ParcelRule } from '@/core/parcel/profile';
import { isNoAddress, NO_ADDRESS } from '@/core/place/address';
import { itemsById } from '@/db/items';
import { deliverSettings, parcelProfiles, parcelRules } from '@/db/parcel-profiles';
import type { Parcel, ParcelLine } from '@/db/parcels';
import type { Db } from '@/db/pool';
import { ratesOn } from '@/db/rates';

/** All that parcels are packed with: the things in them, the profiles and the rules. */
export type PackingTable = PackingSetting & { readonly rules: readonly ParcelRule[]; readonly home: string };

/** From where parcels of a business leave. */
export const leavesFrom = (business: Business) =>
  isNoAddress(business.place) ? { ...NO_ADDRESS, country: business.country } : business.place;

/** What these parcels are packed with; the rules are read only where something is packed. */
export async function packingTable(
  db: Db,
  business: Business,
  parcels: readonly { readonly lines: readonly Pick<ParcelLine, 'itemId'>[] }[],
): Promise<PackingTable> {
  const ids = [...new Set(parcels.flatMap(({ lines }) => lines.flatMap(({ itemId }) => (itemId ? [itemId] : []))))];
  const items = ids.length > 0 ? await itemsById(db, ids) : [];
  return {
    items: new Map(items.map((item) => [item.id, item])),
    profiles: await parcelProfiles(db),
    rules: parcels.length > 0 ? await parcelRules(db) : [],
    from: leavesFrom(business),
    customsReference: (await deliverSettings(db)).customsReference,
    home: homePlace(business).country,
  };
}

/** The profile that the rules choose for a parcel; null where none knows it. */
export const profileByRule = (
  table: PackingTable,
  parcel: Pick<Parcel, 'recipient'> & {
    readonly lines: readonly Pick<ParcelLine, 'itemId' | 'optionId' | 'quantity' | 'valueMinor'>[];
  },
  wish: string,
): string | null => ruledProfile(parcel, wish, table, table.rules, table.home).profile?.id ?? null;

/** Sums of the business's own currency in another one, by the rates of the day. @returns null for a sum where no rate is known */
export async function inOtherCurrency(
  db: Db,
  business: Business,
  currency: string,
): Promise<(minor: bigint) => bigint | null> {
  if (currency === business.currency) return (minor) => minor;
  const rates = await ratesOn(db, dateInZone(db.now, business.zone));
  const rate = rates && rateBetween(rates, business.currency, currency);
  return (minor) => (rate ? converted(money(minor, business.currency), currency, rate).minor : null);
}

/**
 * Sums of other currencies in the business's own, by the rates of the day.
 *
 * @returns null for a sum where no rate is known
 */
export async function inOwnCurrency(
  db: Db,
  business: Business,
  now: Date,
): Promise<(minor: bigint, currency: string) => bigint | null> {
  const rates = await ratesOn(db, dateInZone(now, business.zone));
  return (minor, currency) => {
    if (currency === business.currency) return minor;
    const rate = rates && rateBetween(rates, currency, business.currency);
    return rate ? converted(money(minor, currency), business.currency, rate).minor : null;
  };
}

import type { Actor } from '@/db/people';
import { countryList, regionList } from '@/outside/places';
import { requireRight } from './access';

export type PlaceChoice = { readonly code: string; readonly name: string };

/** The regions of a country, or all countries where none is given. */
export async function placesFor(actor: Actor, country: string): Promise<PlaceChoice[]> {
  requireRight(actor, 'read');
  return country ? regionList(country) : countryList('en');
}

/** The regions of a country, for whoever fills in an address. */
export const regionsOf = (country: string): PlaceChoice[] => (country ? regionList(country) : []);

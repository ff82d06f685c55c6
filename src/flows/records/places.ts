import { desk } from '@/flows/door/operation';
import { countryList, regionList } from '@/outside/places';

export type PlaceChoice = { readonly code: string; readonly name: string };

/** The regions of a country, or all countries where none is given. */
export const placesFor = desk('see').run(async (_ctx, country: string): Promise<PlaceChoice[]> => {
  return country ? regionList(country) : countryList('en');
});

/** The regions of a country, for whoever fills in an address. */
export const regionsOf = (country: string): PlaceChoice[] => (country ? regionList(country) : []);

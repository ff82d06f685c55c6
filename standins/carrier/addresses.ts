import type { Spot } from './tariff';

/** What the carrier says of an address: that it knows it, that it would write it otherwise, or that it knows none like it. */
export type AddressAnswer =
  | { readonly says: 'known' }
  | { readonly says: 'proposal'; readonly address: Spot }
  | { readonly says: 'unknown' };

const FIGURES = new Set(['US', 'DE', 'FR', 'ES', 'IT', 'AT', 'CH', 'BE', 'AU', 'MX']);
const SHORT: readonly (readonly [RegExp, string])[] = [
  [/\bStret\b/g, 'Street'],
  [/\bAvenu\b/g, 'Avenue'],
  [/\bRaod\b/g, 'Road'],
];

const tidy = (text: string): string => text.trim().replace(/\s+/g, ' ');
const asPlace = (city: string): string =>
  city === city.toLowerCase() || city === city.toUpperCase()
    ? city
        .toLowerCase()
        .replace(/(^|[\s-])(\p{L})/gu, (_, before: string, letter: string) => before + letter.toUpperCase())
    : city;

/** Looks an address up: spelling, capitals and letters among the figures of its code are put right; a “Nowhere” is on no map. */
export function lookUp(address: Spot): AddressAnswer {
  if ([...address.lines, address.city].some((part) => /\bnowhere\b/i.test(part))) return { says: 'unknown' };
  const proposal: Spot = {
    ...address,
    lines: address.lines.map((line) => SHORT.reduce((text, [wrong, right]) => text.replace(wrong, right), tidy(line))),
    city: asPlace(tidy(address.city)),
    postalCode: FIGURES.has(address.country)
      ? tidy(address.postalCode).replace(/[oO]/g, '0').replace(/[lI]/g, '1')
      : tidy(address.postalCode).toUpperCase(),
  };
  return JSON.stringify(proposal) === JSON.stringify(address)
    ? { says: 'known' }
    : { says: 'proposal', address: proposal };
}

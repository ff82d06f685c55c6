import type { Address } from '../place/address';

/** Member states of the European Union, with Monaco, which belongs to its customs territory (Regulation (EU) No 952/2013, article 4). */
const UNION = new Set('AT BE BG CY CZ DE DK EE ES FI FR GR HR HU IE IT LT LU LV MC MT NL PL PT RO SE SI SK'.split(' '));

/** Countries and their parts between whose post no declaration is asked for; what stands in none is an area of its own. */
const AREAS: readonly ReadonlySet<string>[] = [
  UNION,
  new Set(['CH', 'LI']),
  new Set(['GB', 'IM']),
  new Set(['US', 'PR']),
];

/**
 * Places for which their own country's post asks for a declaration, by postal code: they lie outside the customs territory, or outside the
 * territory of value added tax (Directive 2006/112/EC, article 6): the Canary Islands, Ceuta, Melilla, Livigno, Heligoland, Büsingen, Mount
 * Athos, Åland, and what lies overseas under a French code (98000 is Monaco).
 */
const APART: Readonly<Record<string, RegExp>> = {
  ES: /^(35|38|51|52)\d{3}$/,
  IT: /^23041$/,
  DE: /^(27498|78266)$/,
  GR: /^6308[67]$/,
  FI: /^22\d{3}$/,
  FR: /^(97|98[4-9])\d+$/,
};

const isNorthernIrish = ({ country, postalCode }: Address): boolean =>
  country === 'GB' && /^BT\d/i.test(postalCode.trim());
/** Post of forces abroad goes under a state of its own (AA, AE, AP) and through customs all the same. */
const isForcesPost = ({ country, region }: Address): boolean => country === 'US' && /^US-A[AEP]$/.test(region);
const isApart = (address: Address): boolean =>
  isForcesPost(address) || APART[address.country]?.test(address.postalCode.replace(/\s/g, '')) === true;

const areaOf = (country: string): string => {
  const at = AREAS.findIndex((area) => area.has(country));
  return at < 0 ? country : String(at);
};

/** Whether a declaration for customs goes with a parcel from one address to another. */
export function isDeclared(from: Address, to: Address): boolean {
  if (!from.country || !to.country) return false;
  if (isApart(from) || isApart(to)) {
    // Inside such a place nothing crosses a border.
    const same = isApart(from) && isApart(to) && from.country === to.country;
    return !(same && from.postalCode.slice(0, 2) === to.postalCode.slice(0, 2));
  }
  // Goods between Northern Ireland and the Union are in free circulation (Windsor Framework).
  const [north, other] = isNorthernIrish(from) ? [from, to] : [to, from];
  if (isNorthernIrish(north) && UNION.has(other.country)) return false;
  return areaOf(from.country) !== areaOf(to.country);
}

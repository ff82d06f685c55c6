/** Words that are ours, or that would mislead. */
const RESERVED = new Set(['new', 'api', 'admin', 'dahlia', 'pay', 'sign-in', 'settings', 'back', 'embed', 'sample']);
const LONGEST = 48;

/** Whether a text can be an offer's own short address: small letters, digits and single strokes, 3 to 48 of them. */
export const isShortAddress = (text: string): boolean =>
  text.length >= 3 && text.length <= LONGEST && /^[a-z0-9]+(-[a-z0-9]+)*$/.test(text) && !RESERVED.has(text);

/** A name as a short address: accents and everything that is no letter or digit gone. */
export const shortAddressOf = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/ß/g, 'ss')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, LONGEST)
    .replace(/^-+|-+$/g, '');

/** What could be taken instead of a short address that somebody else has, best first; not looked up yet. */
export function shortAddressSuggestions(taken: string, house: string, year: number): string[] {
  const base = taken.slice(0, LONGEST - 14).replace(/-+$/, '');
  const firstWord = shortAddressOf(house).split('-')[0] ?? '';
  return [...new Set([`${base}-${firstWord}`, `${firstWord}-${base}`, `${base}-${year}`, `${base}-2`, `${base}-3`])]
    .map((one) => one.slice(0, LONGEST).replace(/^-+|-+$/g, ''))
    .filter((one) => one !== taken && isShortAddress(one));
}

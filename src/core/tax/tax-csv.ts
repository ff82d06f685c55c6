import { typedDecimal } from '../money/typed';
import type { BusinessTax } from './business-tax';

/** The columns of a file of tax rules. */
export const TAX_COLUMNS = [
  'Name',
  'Rate',
  'Class',
  'Country',
  'Regions',
  'Postal codes',
  'On delivery',
  'Additional',
] as const;

const list = (text: string): string[] =>
  text
    .split(/[;|\s]+/)
    .map((part) => part.trim().toUpperCase())
    .filter(Boolean);
const yes = (text: string): boolean => /^(yes|y|true|1|x|ja|oui|s[ií])$/i.test(text.trim());

/** What is wrong with a tax, by field, in words. */
export function taxProblems(tax: BusinessTax): { field: string; words: string }[] {
  const problems: { field: string; words: string }[] = [];
  if (!tax.name.trim()) problems.push({ field: 'name', words: 'Name this tax.' });
  const rate = typedDecimal(tax.rate);
  if (rate === null || Number(rate) > 100 || (rate.split('.')[1]?.length ?? 0) > 4)
    problems.push({ field: 'rate', words: 'A rate lies between 0 and 100, with up to 4 digits after the point.' });
  if (tax.country && !/^[A-Z]{2}$/.test(tax.country))
    problems.push({ field: 'country', words: 'Write the country as two letters, such as US.' });
  for (const region of tax.regions ?? [])
    if (!new RegExp(`^${tax.country}-[A-Z0-9]{1,3}$`).test(region))
      problems.push({
        field: 'regions',
        words: `${region} is no region of ${tax.country || 'a country'}; write them as US-WA.`,
      });
  for (const code of tax.postalCodes ?? [])
    if (!/^[A-Z0-9]+(-[A-Z0-9]+)?\*?$/.test(code))
      problems.push({
        field: 'postalCodes',
        words: `${code} is no postal code, range (32004-32099) or beginning (32*).`,
      });
  if ((tax.regions || tax.postalCodes) && !tax.country)
    problems.push({ field: 'country', words: 'Regions and postal codes need their country.' });
  if (!/^[\p{L}\p{N} _-]{1,40}$/u.test(tax.class))
    problems.push({ field: 'class', words: 'Name the class in letters.' });
  return problems;
}

/** A rule as a row of its file. */
export const taxCells = (tax: BusinessTax): string[] => [
  tax.name,
  tax.rate,
  tax.class,
  tax.country,
  (tax.regions ?? []).join(' '),
  (tax.postalCodes ?? []).join(' '),
  tax.onDelivery ? 'yes' : 'no',
  tax.additional ? 'yes' : 'no',
];

/** A rate in a file, with or without its sign. None has thousands: 8,125 and 8.125 are the same one, whoever wrote the file. */
const rateOf = (cell: string): string =>
  typedDecimal(cell.replace(/%\s*$/, '').replace(/^(\d+),(\d+)\s*$/, '$1.$2')) ?? cell;

/** A row of a file as a rule; columns are told by their headings, in any order. @param id for the new rule */
export function taxOfCells(headings: readonly string[], cells: readonly string[], id: string): BusinessTax {
  const cell = (name: (typeof TAX_COLUMNS)[number]): string => {
    const at = headings.findIndex((heading) => heading.trim().toLowerCase() === name.toLowerCase());
    return at < 0 ? '' : (cells[at] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
  };
  const regions = list(cell('Regions'));
  const postalCodes = list(cell('Postal codes'));
  return {
    id,
    name: cell('Name'),
    rate: rateOf(cell('Rate')),
    class: cell('Class').toLowerCase() || 'standard',
    country: cell('Country').toUpperCase(),
    ...(regions.length > 0 ? { regions } : {}),
    ...(postalCodes.length > 0 ? { postalCodes } : {}),
    onDelivery: yes(cell('On delivery')),
    additional: yes(cell('Additional')),
    retired: false,
  };
}

/** The rules of a file that are not among these already: the list handed out and brought in again adds nothing. */
export function newTaxes(rules: readonly BusinessTax[], read: readonly BusinessTax[]): BusinessTax[] {
  const written = (tax: BusinessTax): string => JSON.stringify(taxCells(tax));
  const known = new Set(rules.map(written));
  return read.filter((tax) => {
    const fresh = !known.has(written(tax));
    known.add(written(tax));
    return fresh;
  });
}

import ICAL from 'ical.js';
import { IMPORT_FIELDS, type ImportField } from '@/core/customer/import-rows';

/** A file's rows below their headings. */
export type Table = { readonly headings: readonly string[]; readonly rows: readonly (readonly string[])[] };

const COLUMNS: readonly ImportField[] = [
  'name',
  'company',
  'email',
  'phone',
  'street',
  'city',
  'region',
  'postalCode',
  'country',
  'language',
  'groups',
  'note',
];

const words = (value: unknown): string => (Array.isArray(value) ? value.flat(2).join(' ') : String(value ?? '')).trim();

/** vCards (RFC 6350, and the older 3.0) as rows under the headings that importing knows. Cards that cannot be read are left out. */
export function vcardTable(text: string): Table {
  const headings = COLUMNS.map((field) => IMPORT_FIELDS[field]);
  const rows = text
    .split(/(?=^BEGIN:VCARD)/im)
    .map((card) => card.trim())
    .filter(Boolean)
    .flatMap((card) => {
      try {
        const parsed: unknown = ICAL.parse(card.replace(/\r?\n/g, '\r\n'));
        return [new ICAL.Component(parsed as ConstructorParameters<typeof ICAL.Component>[0])];
      } catch {
        return [];
      }
    })
    .map((card) => {
      const all = (name: string) => card.getAllProperties(name).map((property) => words(property.getFirstValue()));
      const address = card.getFirstPropertyValue('adr');
      const [, , street, city, region, postalCode, country] = Array.isArray(address) ? address.map(words) : [];
      const organisation = all('kind').includes('org') || (all('org').length > 0 && all('n').length === 0);
      const cells: Record<string, string | undefined> = {
        name: organisation ? '' : all('fn')[0],
        company: organisation ? (all('org')[0] ?? all('fn')[0]) : '',
        email: all('email').join('; '),
        phone: all('tel')[0]?.replace(/^tel:/, ''),
        street,
        city,
        region,
        postalCode,
        country,
        language: all('lang')[0],
        groups: card
          .getAllProperties('categories')
          .flatMap((property) => property.getValues().map(words))
          .join('; '),
        note: all('note').join('\n'),
      };
      return COLUMNS.map((field) => cells[field] ?? '');
    });
  return { headings, rows };
}

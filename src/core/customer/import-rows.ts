import { type ColumnsAs, guessedColumns } from '../import/columns';
import { isNoAddress, NO_ADDRESS } from '../place/address';
import { type Customer, distinctAddresses } from './customer';

/** What a column of an imported file can be. */
export const IMPORT_FIELDS = {
  name: 'Name',
  firstName: 'First name',
  lastName: 'Last name',
  company: 'Company',
  email: 'E-mail address',
  copies: 'Copies to',
  phone: 'Phone',
  street: 'Street and number',
  street2: 'Further address line',
  city: 'City',
  region: 'State or region',
  postalCode: 'Postal code',
  country: 'Country',
  taxNumber: 'Tax number',
  language: 'Language',
  currency: 'Currency',
  groups: 'Groups',
  note: 'Private note',
} as const;

export type ImportField = keyof typeof IMPORT_FIELDS;

/** For each column of the file the field it fills, or null where it is left out. */
export type Mapping = ColumnsAs<ImportField>;

const USUAL: Readonly<Record<ImportField, RegExp>> = {
  firstName: /^(first|given|vor)[ _-]?names?$|^vorname$|^pr[eé]nom$|^nombre de pila$/i,
  lastName: /^(last|family|sur)[ _-]?names?$|^surname$|^nachname$|^apellidos?$/i,
  company: /^(company|organi[sz]ation|business|firma|soci[eé]t[eé]|empresa)( name)?$/i,
  name: /^((full|display|customer|client)[ _-]?)?name$|^kunde$|^nom$|^nombre$/i,
  email: /^(main |primary )?e-?mail( ?address)?( ?1)?$|^courriel$|^correo$/i,
  copies: /^(cc|copies|copies to|e-?mail( ?address)? ?2)$/i,
  phone: /phone|^tel|^mobile|^tel[eé]fono/i,
  street: /^(street|address|address ?(line)? ?1|stra(ss|ß)e|rue|calle|street and number)$/i,
  street2: /^(address ?(line)? ?2|further address line|zusatz)$/i,
  city: /^(city|town|ort|stadt|ville|ciudad)$/i,
  region: /^(state|region|province|county|state or region|bundesland|provincia)$/i,
  postalCode: /^(zip|zip ?code|post(al)? ?code|plz|code postal|c[oó]digo postal)$/i,
  country: /^(country|land|pays|pa[ií]s)( ?code)?$/i,
  taxNumber: /^(tax|vat)[ _-]?(number|id|no\.?)$|^ust-?id/i,
  language: /^(language|lang|sprache|langue|idioma)$/i,
  currency: /^(currency|w[aä]hrung|devise|moneda)$/i,
  groups: /^(groups?|tags?|labels?)$/i,
  note: /^(private )?notes?$|^remarks?$|^notiz/i,
};

/** The likely meaning of each column by its heading. */
export const guessedMapping = (headings: readonly string[]): Mapping => guessedColumns(headings, USUAL);

/** The languages that customers are written to in, by the names that files have for them. */
const LANGUAGES: Readonly<Record<string, RegExp>> = {
  en: /^(en|eng)\b|^(english|englisch|ingl[eé]s|anglais)$/i,
  de: /^(de|deu|ger)\b|^(german|deutsch|alem[aá]n|allemand)$/i,
  fr: /^(fr|fra|fre)\b|^(french|franz[oö]sisch|franc[eé]s|fran[cç]ais)$/i,
  es: /^(es|spa)\b|^(spanish|spanisch|espa[nñ]ol|espagnol)$/i,
};

/** A language as a file says it (`de-CH`, `Deutsch`); empty for one in which nothing is written here. */
export const languageOf = (text: string): string =>
  Object.entries(LANGUAGES).find(([, says]) => says.test(text.trim()))?.[0] ?? '';

/** A row as read: a customer without its id, or why it cannot be one. */
export type ImportedRow =
  | { readonly ok: true; readonly customer: Omit<Customer, 'id'> }
  | { readonly ok: false; readonly reasons: readonly string[] };

/** What rows are read against. `countries` knows a code by its name in lower case; `regions` by country and name. */
export type ImportPlaces = {
  readonly home: string;
  readonly countryCode: (text: string) => string | null;
  readonly regionCode: (country: string, text: string) => string | null;
};

// A place and a dot: enough to catch a slip. The door to sending checks the address in full.
const ADDRESS = /^[^\s@,;<>"]+@[^\s@,;<>"]+\.[^\s@,;<>".]+$/;
const LONGEST: Partial<Record<ImportField, number>> = { name: 160, note: 4000 };

/** Reads one row by a mapping. */
export function importedRow(cells: readonly string[], mapping: Mapping, places: ImportPlaces): ImportedRow {
  const reasons: string[] = [];
  const cell = (field: ImportField): string => {
    const at = mapping.indexOf(field);
    // A leading apostrophe is how spreadsheets keep text from being a formula.
    const text = at < 0 ? '' : (cells[at] ?? '').trim().replace(/^'(?=[=+\-@])/, '');
    const most = LONGEST[field] ?? 254;
    if (text.length > most) reasons.push(`${IMPORT_FIELDS[field]}: longer than ${most} letters`);
    return text;
  };
  const person = cell('name') || [cell('firstName'), cell('lastName')].filter(Boolean).join(' ');
  const company = cell('company');
  const name = company || person;
  if (!name) reasons.push('No name');
  const list = (field: ImportField) =>
    cell(field)
      .split(/[;,]/)
      .map((part) => part.trim())
      .filter(Boolean);
  const [email = '', ...more] = list('email');
  const copies = [...more, ...list('copies')];
  for (const address of [email, ...copies].filter(Boolean)) {
    if (!ADDRESS.test(address)) reasons.push(`Not an e-mail address: ${address}`);
  }
  const countryText = cell('country');
  const country = countryText ? places.countryCode(countryText) : places.home;
  if (country === null) reasons.push(`Unknown country: ${countryText}`);
  const regionText = cell('region');
  const region = regionText && country ? places.regionCode(country, regionText) : '';
  if (region === null) reasons.push(`Unknown state or region: ${regionText}`);
  const languageText = cell('language');
  const language = languageOf(languageText);
  const currency = cell('currency').toUpperCase();
  if (currency && !/^[A-Z]{3}$/.test(currency)) reasons.push(`Not a currency: ${currency}`);
  const note = [
    cell('note'),
    company && person && company !== person ? `Contact: ${person}` : '',
    // Nothing is written in it here, but whoever calls them should know.
    languageText && !language ? `Language: ${languageText}` : '',
  ];
  const written = {
    ...NO_ADDRESS,
    lines: [cell('street'), cell('street2')].filter(Boolean),
    city: cell('city'),
    postalCode: cell('postalCode'),
  };
  const billing = { ...written, country: country ?? '', region: region ?? '' };
  if (reasons.length > 0) return { ok: false, reasons };
  return {
    ok: true,
    customer: {
      kind: company ? 'company' : 'person',
      name,
      email,
      copies,
      phone: cell('phone'),
      language,
      currency,
      billing: isNoAddress(billing) && !countryText && !regionText ? NO_ADDRESS : billing,
      delivery: null,
      taxNumber: cell('taxNumber'),
      note: note.filter(Boolean).join('\n'),
      due: null,
      groups: list('groups'),
      shipsFirst: null,
    },
  };
}

/** What becomes of rows of customers who are on file already. */
export const ON_FILE = ['refuse', 'update'] as const;
export type OnFile = (typeof ON_FILE)[number];

/** A customer on file with what a row says: what the row leaves open stays; groups, copies and notes of both stay. */
export function overlaid(onFile: Customer, row: Omit<Customer, 'id'>): Customer {
  const emails = [row.email || onFile.email, ...onFile.copies, ...row.copies];
  const [email = '', ...copies] = distinctAddresses(emails.filter(Boolean));
  const isNewNote = row.note !== '' && !onFile.note.includes(row.note);
  return {
    ...onFile,
    kind: row.kind === 'company' ? 'company' : onFile.kind,
    name: row.name,
    email,
    copies,
    phone: row.phone || onFile.phone,
    language: row.language || onFile.language,
    currency: row.currency || onFile.currency,
    billing: isNoAddress(row.billing) ? onFile.billing : row.billing,
    taxNumber: row.taxNumber || onFile.taxNumber,
    note: isNewNote ? [onFile.note, row.note].filter(Boolean).join('\n') : onFile.note,
    shipsFirst: null,
    groups: [...new Set([...onFile.groups, ...row.groups])],
  };
}

/** As many rows as one request carries; a file is sent in parts, so that progress can be shown. */
export const IMPORT_PART = 2000;

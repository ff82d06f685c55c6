import ICAL from 'ical.js';
import { IMPORT_FIELDS, type ImportField } from '@/core/customer/import-rows';
import type { BrokenRow, Table } from '@/core/file/table';
import { asNewer } from './vcard-old';

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

type CardLines = { readonly line: number; readonly lines: readonly string[] };

/** The file's cards with the line each begins on, and what is none: text between cards, cards without an end. */
function cardsOf(text: string): { cards: CardLines[]; broken: BrokenRow[] } {
  const cards: CardLines[] = [];
  const broken: BrokenRow[] = [];
  let open: { line: number; lines: string[] } | null = null;
  const close = (said: string) => {
    if (open) broken.push({ line: open.line, raw: open.lines.join(' '), words: said });
    open = null;
  };
  for (const [at, raw] of text.split(/\r\n|\n|\r/).entries()) {
    if (/^BEGIN:VCARD\s*$/i.test(raw)) {
      close('This card has no end: another one begins before its END:VCARD.');
      open = { line: at + 1, lines: [raw.trim()] };
    } else if (open) {
      const card: { line: number; lines: string[] } = open;
      // A line that begins with a space goes on from the one before (RFC 6350, 3.2).
      if (/^[ \t]/.test(raw)) card.lines[card.lines.length - 1] = `${card.lines.at(-1)}${raw.slice(1)}`;
      else if (raw.trim()) card.lines.push(raw.trimEnd());
      if (/^END:VCARD\s*$/i.test(raw)) {
        cards.push(card);
        open = null;
      }
    } else if (raw.trim()) broken.push({ line: at + 1, raw, words: 'This line stands in no card.' });
  }
  close('This card has no end: the file ends before its END:VCARD.');
  return { cards, broken };
}

/** A card of any version as its properties. @throws where it is none */
function parsed({ lines }: CardLines): ICAL.Component {
  const isOld = lines.some((line) => /^VERSION:2/i.test(line));
  const said = lines.some((line) => /^VERSION:/i.test(line)) ? lines : lines.toSpliced(1, 0, 'VERSION:3.0');
  const text = (isOld ? asNewer(said) : said).join('\r\n');
  return new ICAL.Component(ICAL.parse(text) as ConstructorParameters<typeof ICAL.Component>[0]);
}

/** A card as a row of the columns above. */
function rowOf(card: ICAL.Component): string[] {
  const all = (name: string) => card.getAllProperties(name).map((property) => words(property.getFirstValue()));
  const address = card.getFirstPropertyValue('adr');
  const [box, more, street, city, region, postalCode, country] = Array.isArray(address) ? address.map(words) : [];
  const [last, first] = [card.getFirstPropertyValue('n')].flat().map(words);
  const organisation = all('kind').includes('org') || (all('org').length > 0 && !last && !first);
  const person = all('fn')[0] || [first, last].filter(Boolean).join(' ');
  const cells: Record<string, string | undefined> = {
    name: organisation ? '' : person,
    company: all('org')[0] || (organisation ? person : ''),
    email: all('email').join('; '),
    phone: all('tel')[0]?.replace(/^tel:/, ''),
    street: [street, more, box].filter(Boolean).join(', '),
    city,
    region,
    postalCode,
    country,
    language: all('lang')[0] || all('x-language')[0],
    groups: card
      .getAllProperties('categories')
      .flatMap((property) => property.getValues().map(words))
      .join('; '),
    note: all('note').join('\n'),
  };
  return COLUMNS.map((field) => cells[field] ?? '');
}

/**
 * vCards as rows under the headings that importing knows: 4.0 (RFC 6350), 3.0 (RFC 2426), and 2.1 from before. What cannot be read
 * is a broken row with its line, and takes no other card with it.
 */
export function vcardTable(text: string): Table {
  const { cards, broken } = cardsOf(text.replace(/^\uFEFF/, ''));
  const rows: { line: number; cells: string[] }[] = [];
  const unread: BrokenRow[] = [];
  for (const card of cards) {
    try {
      rows.push({ line: card.line, cells: rowOf(parsed(card)) });
    } catch {
      unread.push({ line: card.line, raw: card.lines.join(' '), words: 'This card is not written as vCards are.' });
    }
  }
  return {
    headings: COLUMNS.map((field) => IMPORT_FIELDS[field]),
    rows: rows.map(({ cells }) => cells),
    lines: rows.map(({ line }) => line),
    broken: [...broken, ...unread].sort((a, b) => a.line - b.line),
  };
}

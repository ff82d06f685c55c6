import type { LabelSheet } from './profile';

/** A label as it is printed: who sends it to whom, with which service, and what a reader finds on it. */
export type PrintedLabel = {
  /** The item number, bare. */
  readonly number: string;
  readonly serviceName: string;
  readonly from: readonly string[];
  readonly to: readonly string[];
  readonly weight: string;
  readonly signature: boolean;
  /** The sales in it, as their numbers. */
  readonly reference: string;
  readonly mailOn: string;
  readonly country: string;
  readonly postalCode: string;
};

/** What the square code on a label says: number, country, postal code and service, with bars between them. */
export const routingText = ({ number, country, postalCode, serviceName }: PrintedLabel): string =>
  [number, country, postalCode.replace(/\s/g, '').toUpperCase(), serviceName.toUpperCase()]
    // What no reader's keyboard types everywhere is left out.
    .map((part) => part.replace(/[^\x20-\x7b\x7d\x7e]/g, ''))
    .join('|');

/** A place for a label on a sheet, in millimetres from the sheet's top left. */
export type LabelPlace = { readonly x: number; readonly y: number; readonly width: number; readonly height: number };

export const A6 = { width: 105, height: 148 };
export const A4 = { width: 210, height: 297 };

/** The sheet and its places, in the order in which they are filled: from the left, then down. Millimetres. */
export function labelPlaces(
  sheet: LabelSheet,
  own: { readonly widthMm: number; readonly heightMm: number },
): { readonly width: number; readonly height: number; readonly places: readonly LabelPlace[] } {
  if (sheet === 'a6') return { ...A6, places: [{ x: 0, y: 0, ...A6 }] };
  if (sheet === 'own') {
    const size = { width: own.widthMm, height: own.heightMm };
    return { ...size, places: [{ x: 0, y: 0, ...size }] };
  }
  const [columns, rows] = sheet === 'a4-2' ? [1, 2] : [2, 2];
  const size = { width: A4.width / columns, height: A4.height / rows };
  const places = Array.from({ length: columns * rows }, (_, at) => ({
    x: (at % columns) * size.width,
    y: Math.floor(at / columns) * size.height,
    ...size,
  }));
  return { ...A4, places };
}

/**
 * On which sheet and place each of so many labels lies.
 *
 * @param begin the first free place of a sheet that is used in part, from 0
 */
export const placed = (
  count: number,
  perSheet: number,
  begin: number,
): { readonly sheet: number; readonly place: number }[] =>
  Array.from({ length: count }, (_, at) => {
    const nth = begin + at;
    return { sheet: Math.floor(nth / perSheet), place: nth % perSheet };
  });

/** Dots to a millimetre of a thermal printer with 203 dots to the inch. */
const DOTS = 8;

/** A text in a field of a label printer's language: what would be a command is written as its bytes (field hexadecimal, `^FH`). */
const field = (text: string): string =>
  `^FH^FD${[...text.replace(/[\r\n]+/g, ' ')].map((sign) => (sign === '^' || sign === '~' || sign === '_' ? `_${sign.charCodeAt(0).toString(16).toUpperCase()}` : sign)).join('')}^FS`;

/**
 * A label in ZPL II for thermal printers of 203 dots to the inch, in UTF-8 (`^CI28`): the same lines and codes as on paper.
 *
 * @param size in whole millimetres
 */
export function labelZpl(label: PrintedLabel, size: { readonly widthMm: number; readonly heightMm: number }): string {
  const [width, height] = [size.widthMm * DOTS, size.heightMm * DOTS];
  const at = (x: number, y: number) => `^FO${x},${y}`;
  const lines: string[] = ['^XA', '^CI28', `^PW${width}`, `^LL${height}`, '^LH0,0'];
  const edge = 4 * DOTS;
  lines.push(`${at(edge, edge)}^A0N,22,22${field(label.from.join(', ').slice(0, 90))}`);
  lines.push(`${at(edge, edge + 40)}^A0N,64,64${field(label.serviceName)}`);
  lines.push(`${at(edge, edge + 116)}^GB${width - 2 * edge},3,3^FS`);
  let y = edge + 140;
  for (const [nth, line] of label.to.entries()) {
    const high = nth === 0 ? 40 : 34;
    lines.push(`${at(edge, y)}^A0N,${high},${high}${field(line.slice(0, 60))}`);
    y += high + 10;
  }
  const below = [label.weight, label.signature ? 'Signature' : '', label.reference].filter(Boolean).join('  ');
  lines.push(`${at(edge, Math.min(y + 14, height - 430))}^A0N,24,24${field(below.slice(0, 70))}`);
  const foot = height - 34 * DOTS;
  lines.push(
    `${at(width - edge - 22 * DOTS, foot - 26 * DOTS)}^BXN,8,200^FD${routingText(label).replace(/[\^~_]/g, '')}^FS`,
  );
  lines.push(`${at(edge, foot)}^BY3^BCN,${22 * DOTS},N,N,N^FD${label.number}^FS`);
  lines.push(`${at(edge, foot + 24 * DOTS)}^A0N,36,36${field(label.number)}`);
  lines.push('^XZ');
  return lines.join('\n');
}

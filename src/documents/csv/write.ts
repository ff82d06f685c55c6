import { stringify } from 'csv-stringify/sync';
import { zonedText } from '@/core/dates/zone';
import { minorDigits } from '@/core/money/currency';
import { fixedText } from '@/core/money/decimal';

/** A sum in minor units as a cell: a plain decimal with all digits of its currency, `22.00`. */
export const sumCell = (minor: bigint, currency: string): string => fixedText(minor, minorDigits(currency));

/** A moment as a cell: ISO 8601 by the clock of the business's zone, `2027-01-31T09:10:00-05:00`. */
export const momentCell = (at: Date, zone: string): string => zonedText(at, zone);

const NUMBER = /^-?\d+(\.\d+)?$/;
const FORMULA = /^[=+\-@\t\r]/;

/** What a spreadsheet would run as a formula begins with an apostrophe instead; a sum below 0 is no formula. */
const harmless = (cell: string): string => (FORMULA.test(cell) && !NUMBER.test(cell) ? `'${cell}` : cell);

/** Rows as CSV (RFC 4180), safe to be opened in a spreadsheet. */
export const csvText = (headings: readonly string[], rows: readonly (readonly string[])[]): string =>
  stringify(
    [[...headings], ...rows].map((row) => row.map(harmless)),
    { record_delimiter: 'windows' },
  );

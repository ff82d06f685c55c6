import { stringify } from 'csv-stringify/sync';

/** Rows as CSV (RFC 4180). Cells that a spreadsheet would run as a formula begin with an apostrophe instead. */
export const csvText = (headings: readonly string[], rows: readonly (readonly string[])[]): string =>
  stringify([[...headings], ...rows.map((row) => [...row])], { escape_formulas: true, record_delimiter: 'windows' });

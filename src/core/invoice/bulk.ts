import { readTyped } from '../money/typed';
import type { Paper } from '../paper/paper';

/** What one of bulk invoices says instead of their paper; `lines` by position, from 0. */
export type OwnWords = {
  readonly reference?: string;
  readonly note?: string;
  readonly lines?: Readonly<
    Record<string, { readonly quantity?: string; readonly price?: string; readonly what?: string }>
  >;
};

/** The common paper with one customer's own words. */
export const ownPaper = (paper: Paper, customerId: string, own: OwnWords): Paper => ({
  ...paper,
  customerId,
  number: '',
  ...(own.reference ? { reference: own.reference } : {}),
  ...(own.note ? { note: own.note } : {}),
  // A quantity of nothing or zero leaves the line out of this one.
  lines: paper.lines
    .map((line, at) => ({ ...line, ...own.lines?.[String(at)] }))
    .filter((line) => line.quantity.trim() !== '' && !/^0+([.,]0*)?$/.test(line.quantity.trim())),
});

/** What a column of the file of bulk invoices is. */
export type BulkColumn =
  | { readonly is: 'customer' | 'reference' | 'note' }
  | { readonly is: 'quantity' | 'price' | 'what'; readonly line: number };

/** Columns by their headings: who it is for (name or e-mail), `quantity 2`, `price 1`, `text 1`, `reference`, `note`. */
export const bulkColumns = (headings: readonly string[]): (BulkColumn | null)[] =>
  headings.map((heading) => {
    const text = heading.trim().toLowerCase();
    if (/^(customer|name|e-?mail|e-?mail address|kunde|client|cliente)$/.test(text)) return { is: 'customer' };
    if (/^(reference|ref)$/.test(text)) return { is: 'reference' };
    if (/^(note|words|text to the customer)$/.test(text)) return { is: 'note' };
    const numbered = /^(quantity|how much|price|text|what)\s*#?(\d{1,3})?$/.exec(text);
    if (!numbered) return null;
    const is = /^(quantity|how much)$/.test(numbered[1] ?? '')
      ? 'quantity'
      : numbered[1] === 'price'
        ? 'price'
        : 'what';
    return { is, line: Number(numbered[2] ?? 1) - 1 };
  });

/**
 * One row of the file of bulk invoices: who it is for, as written, and what it says of its own.
 *
 * @param sign the decimal sign of whoever brings the file
 */
export function bulkRow(
  cells: readonly string[],
  columns: readonly (BulkColumn | null)[],
  sign: '.' | ',' = '.',
): { customer: string; own: OwnWords } {
  let customer = '';
  let own: OwnWords = {};
  for (const [at, column] of columns.entries()) {
    const text = (cells[at] ?? '').trim().slice(0, 4000);
    if (!column || text === '') continue;
    if (!('line' in column)) {
      if (column.is === 'customer') customer ||= text;
      else own = { ...own, [column.is]: text };
    } else {
      const line = String(column.line);
      const read = column.is === 'what' ? text : readTyped(text, sign).text;
      own = { ...own, lines: { ...own.lines, [line]: { ...own.lines?.[line], [column.is]: read } } };
    }
  }
  return { customer, own };
}

/** How many customers one set of bulk invoices goes to. */
export const MOST_IN_BULK = 5000;

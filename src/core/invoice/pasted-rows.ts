import { readTyped, typedDecimal } from '../money/typed';
import type { PaperLine } from '../paper/paper';

/** What pasted rows give a line; the rest is as on a new one. */
export type PastedLine = Pick<PaperLine, 'what' | 'quantity' | 'price'>;

const isNumber = (cell: string): boolean => typedDecimal(cell) !== null;

/**
 * Rows of a spreadsheet as lines, or null where the text is no rows: one line of text without tabs is just text.
 *
 * The first cell that is no number is what the line is for; of the numbers the last is the price, the one before it how much.
 * A first row without any number is its heading and is left out.
 *
 * @param sign the decimal sign of whoever pastes
 */
export function pastedLines(text: string, most: number, sign: '.' | ',' = '.'): PastedLine[] | null {
  const rows = text
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .map((row) => row.split('\t').map((cell) => cell.trim()))
    .filter((cells) => cells.some(Boolean));
  if (!text.includes('\t') && rows.length < 2) return null;
  if (!text.includes('\t')) return rows.slice(0, most).map(([what = '']) => ({ what, quantity: '1', price: '' }));
  const heading = rows.length > 1 && !rows[0]?.some(isNumber) && rows[1]?.some(isNumber);
  return (heading ? rows.slice(1) : rows).slice(0, most).map((cells) => {
    const at = cells.findIndex((cell) => cell && !isNumber(cell));
    const numbers = cells.filter((cell, place) => place > at && isNumber(cell));
    const read = (cell: string) => readTyped(cell, sign).text;
    const price = read(numbers.at(-1) ?? '');
    return {
      what: (cells[at] ?? '').slice(0, 500),
      quantity: numbers.length > 1 ? read(numbers.at(-2) ?? '1') : '1',
      price,
    };
  });
}

import { minorDigits } from '../../src/core/money/currency';
import { fixedText } from '../../src/core/money/decimal';
import type { CarrierBook } from './book';

const quoted = (cell: string): string => (/[",\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);

/** The statement of a month (`YYYY-MM`) as a file: opening, each entry with the balance after it, closing. Days in UTC. */
export function statementCsv(book: CarrierBook, account: string, month: string): string {
  const { currency } = book.balanceOf(account);
  const sum = (minor: number) => fixedText(BigInt(minor), minorDigits(currency || 'USD'));
  // What was weighed again stands under the day on which that was, whenever it was written down.
  const moves = [...book.movesOf(account)].sort((one, other) => (one.at < other.at ? -1 : one.at > other.at ? 1 : 0));
  let balance = moves.filter(({ at }) => at.slice(0, 7) < month).reduce((all, { minor }) => all + minor, 0);
  const rows: string[][] = [
    ['Date', 'Entry', 'Item', 'Reference', 'Details', 'Amount', 'Balance'],
    [`${month}-01`, 'Opening balance', '', '', '', '', sum(balance)],
  ];
  let last = `${month}-01`;
  for (const { at, what, number, key, words, minor } of moves) {
    if (at.slice(0, 7) !== month) continue;
    balance += minor;
    last = at.slice(0, 10);
    rows.push([last, what, number, key, words, sum(minor), sum(balance)]);
  }
  rows.push([last, 'Closing balance', '', '', '', '', sum(balance)]);
  return `${rows.map((row) => row.map(quoted).join(',')).join('\r\n')}\r\n`;
}

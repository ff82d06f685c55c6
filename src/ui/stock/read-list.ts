import { guessedColumns } from '@/core/import/columns';
import { decimalSignOf } from '@/core/money/typed';
import { importedStock, type StockRowRead, USUAL_STOCK_HEADINGS } from '@/core/stock/import-rows';
import { readTable } from '../import/read-table';
import { send } from '../kit/send';
import type { StockShown } from './shown';

/** What a list came to: its rows with what they name, and in words what of it could not be taken. */
export type ReadList = {
  readonly rows: readonly (StockRowRead & { readonly thing: StockShown })[];
  readonly troubles: readonly string[];
};

const MOST_ROWS = 500;

/** Reads a supplier's list, or a count, from a file with a heading for the code and one for how many. Never throws. */
export async function readList(file: File, locale: string): Promise<ReadList> {
  const nothing = (words: string): ReadList => ({ rows: [], troubles: [words] });
  const table = await readTable(file).catch(() => null);
  if (!table) return nothing(`${file.name} cannot be read as a table. Save it as CSV and choose it again.`);
  const mapping = guessedColumns(table.headings, USUAL_STOCK_HEADINGS);
  if (!mapping.includes('code') || !mapping.includes('quantity'))
    return nothing('The first line needs the headings Code and How many; a heading Cost is read too.');
  if (table.rows.length > MOST_ROWS) return nothing(`There are more than ${MOST_ROWS} rows. Take them in parts.`);
  const sign = decimalSignOf(locale);
  const read = table.rows.map((cells) => importedStock(cells, mapping, sign));
  const good = read.flatMap((row) => (row.ok ? [row.value] : []));
  const troubles = [
    ...read.flatMap((row, at) => (row.ok ? [] : [`Line ${table.lines[at] ?? at + 2}: ${row.reasons.join('; ')}`])),
    ...table.broken.map(({ line, words }) => `Line ${line}: ${words}`),
  ];
  if (good.length === 0) return { rows: [], troubles: troubles.length > 0 ? troubles : ['There are no rows in it.'] };
  const answer = await send<StockShown[]>('POST', '/api/stock/codes', { codes: good.map(({ code }) => code) });
  if (!answer.ok) return nothing(answer.words);
  const byCode = new Map(answer.value.map((thing) => [thing.code.toLowerCase(), thing]));
  return {
    rows: good.flatMap((row) => {
      const thing = byCode.get(row.code.trim().toLowerCase());
      return thing ? [{ ...row, thing }] : [];
    }),
    troubles: [
      ...troubles,
      ...good
        .filter(({ code }) => !byCode.has(code.trim().toLowerCase()))
        .map(({ code }) => `${code}: nothing that is counted has this code`),
    ],
  };
}

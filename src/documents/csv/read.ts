import Papa from 'papaparse';

/** Rows of a CSV text by their headings, which may be written in any case and order; other columns are left out. */
export function tableOf<Column extends string>(
  text: string,
  columns: readonly Column[],
): Partial<Record<Column, string>>[] {
  const { data } = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (heading) => heading.trim().toLowerCase(),
  });
  return data.map(
    (row) =>
      Object.fromEntries(columns.map((column) => [column, row[column] ?? ''])) as Partial<Record<Column, string>>,
  );
}

/** So many columns the row of headings has at the least; what stands above it is the bank's own words. */
const FEWEST = 2;

/** A CSV text as it stands: the first row with several cells that are no sums is its headings, and what follows its rows. */
export function rawTable(text: string): { headings: string[]; rows: string[][] } {
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: 'greedy' });
  const filled = (row: readonly string[]): number => row.filter((cell) => cell.trim() !== '').length;
  const width = Math.max(0, ...data.slice(0, 60).map(filled));
  const at = data.findIndex(
    (row) => filled(row) >= Math.max(FEWEST, width - 3) && row.every((cell) => !/^\s*[-+]?\d/.test(cell)),
  );
  const headings = (data[at] ?? []).map((cell) => cell.trim());
  return { headings, rows: at < 0 ? [] : data.slice(at + 1).filter((row) => filled(row) >= FEWEST) };
}

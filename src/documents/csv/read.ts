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

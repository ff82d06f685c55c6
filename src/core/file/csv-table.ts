import Papa from 'papaparse';
import type { BrokenRow, Table } from './table';

const QUOTES = 'A quotation mark in this row is not closed, or stands inside a cell without being doubled.';

/** Spreadsheets may say the sign between cells in a first line of its own. */
const SIGN = /^sep=(.)\r?\n/i;

/** The sign between the cells, as the headings have it. */
function signOf(text: string): string {
  const [first = ''] = text.split(/\r\n|\n|\r/, 1);
  const { delimiter } = Papa.parse(first, { delimitersToGuess: [',', ';', '\t', '|'] }).meta;
  return delimiter || ',';
}

const lineEnds = (text: string): number => text.match(/\r\n|\n|\r/g)?.length ?? 0;

/**
 * A CSV file as a table. A row with a broken quote is a row of its own and takes no other with it: what comes after its line
 * is read as usual. So is one with more cells than there are headings.
 *
 * @param text decoded, with or without byte order mark
 */
export function csvTable(text: string): Table {
  const bare = text.replace(/^\uFEFF/, '');
  const said = SIGN.exec(bare);
  const body = said ? bare.slice(said[0].length) : bare;
  const delimiter = said?.[1] ?? signOf(body);
  const found: { line: number; cells: string[] }[] = [];
  const broken: BrokenRow[] = [];
  let line = said ? 2 : 1;
  for (let from = 0; from < body.length; ) {
    const begin = from;
    let read = 0;
    let stopped = false;
    Papa.parse<string[]>(body.slice(begin), {
      delimiter,
      step: ({ data, errors, meta }, parser) => {
        const row = body.slice(begin + read, begin + meta.cursor);
        if (errors.some(({ type }) => type === 'Quotes')) {
          // Only its own line: what the open quote would swallow is read again.
          const [raw = ''] = row.split(/\r\n|\n|\r/, 1);
          // Headings are headings however they are quoted: else the first row of data would be taken for them.
          if (found.length === 0 && broken.length === 0)
            found.push({ line, cells: raw.split(delimiter).map((cell) => cell.replace(/"/g, '').trim()) });
          else broken.push({ line, raw, words: QUOTES });
          const rest = row.slice(raw.length);
          read += raw.length + (rest.startsWith('\r\n') ? 2 : rest ? 1 : 0);
          line++;
          stopped = true;
          return parser.abort();
        }
        if (data.some((cell) => cell.trim())) found.push({ line, cells: data });
        line += lineEnds(row);
        read = meta.cursor;
      },
    });
    from = stopped ? begin + read : body.length;
  }
  const [head, ...rows] = found;
  const headings = head?.cells ?? [];
  const fits = ({ cells }: { cells: string[] }) => cells.slice(headings.length).every((cell) => !cell.trim());
  const wide = rows
    .filter((row) => !fits(row))
    .map(({ line: at, cells }): BrokenRow => {
      const words = `This row has ${cells.length} cells, and there are ${headings.length} headings.`;
      return { line: at, raw: cells.join(delimiter), words };
    });
  const good = rows.filter(fits);
  return {
    headings,
    rows: good.map(({ cells }) => cells),
    lines: good.map(({ line: at }) => at),
    broken: [...broken, ...wide].sort((a, b) => a.line - b.line),
  };
}

import { createHash } from 'node:crypto';
import type { Connection } from './pool';

/** A statement with its values beside the text. */
export type Statement = { readonly text: string; readonly values: readonly unknown[] };

/** Tags a template as SQL: each `${value}` becomes `$1`, `$2` … and never part of the text. */
export function sql(parts: TemplateStringsArray, ...values: unknown[]): Statement {
  return { text: parts.reduce((text, part, at) => `${text}$${at}${part}`), values };
}

// Named, a statement is parsed and planned once a connection instead of each time: most of the cost of a small one.
const names = new Map<string, string>();
const MOST_NAMES = 500;

function prepared({ text, values }: Statement): { name?: string; text: string; values: unknown[] } {
  const known = names.get(text);
  if (known) return { name: known, text, values: [...values] };
  // Bounded, should a text ever be made with something in it that changes.
  if (names.size >= MOST_NAMES) return { text, values: [...values] };
  // By its text, not by a count: the bundler may load this module twice, on the same connections.
  const name = createHash('sha256').update(text).digest('hex').slice(0, 24);
  names.set(text, name);
  return { name, text, values: [...values] };
}

/** All rows. */
export async function many<Row>(db: Connection, statement: Statement): Promise<Row[]> {
  const result = await db.query(prepared(statement));
  return result.rows as Row[];
}

/** The only row, or null. @throws Error where there are several */
export async function maybeOne<Row>(db: Connection, statement: Statement): Promise<Row | null> {
  const rows = await many<Row>(db, statement);
  if (rows.length > 1) throw new Error(`Expected one row at most, got ${rows.length}`);
  return rows[0] ?? null;
}

/** The only row. @throws Error where there is not exactly one */
export async function one<Row>(db: Connection, statement: Statement): Promise<Row> {
  const row = await maybeOne<Row>(db, statement);
  if (row === null) throw new Error('Expected one row, got none');
  return row;
}

/** Runs a write; tells how many rows it touched. */
export async function run(db: Connection, statement: Statement): Promise<number> {
  const result = await db.query(prepared(statement));
  return result.rowCount ?? 0;
}

/** Rows of a set as one value: `from jsonb_to_recordset(${records(rows)}::jsonb) as given (id uuid, …)`. Whole sums become texts. */
export const records = (rows: readonly object[]): string =>
  JSON.stringify(rows, (_, value: unknown) => (typeof value === 'bigint' ? String(value) : value));

/** A `like` pattern for text that holds these words, in lower case: `%` and `_` that a person typed are no wildcards. */
export const likePattern = (words: string): string => `%${words.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`;

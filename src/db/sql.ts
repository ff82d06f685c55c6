import { createHash } from 'node:crypto';
import type { Connection } from './pool';

// By a name that all copies share: the bundler may load this module twice.
const IS_SQL = Symbol.for('dahlia.sql');

/** A statement, or a piece of one, with its values beside the text: `parts` are what stands between the values. */
export type Statement = {
  readonly [IS_SQL]: true;
  readonly parts: readonly string[];
  readonly values: readonly unknown[];
  /** With `$1`, `$2` … where the values go. */
  readonly text: string;
};

const statement = (parts: readonly string[], values: readonly unknown[]): Statement => ({
  [IS_SQL]: true,
  parts,
  values,
  get text() {
    return parts.reduce((text, part, at) => `${text}$${at}${part}`);
  },
});

const isSql = (value: unknown): value is Statement => typeof value === 'object' && value !== null && IS_SQL in value;

/** Tags a template as SQL: each `${value}` becomes `$1`, `$2` … and never part of the text; a piece of SQL becomes part of it. */
export function sql(texts: TemplateStringsArray, ...given: unknown[]): Statement {
  const parts = [texts[0] ?? ''];
  const values: unknown[] = [];
  const goOn = (text: string) => parts.push(parts.pop() + text);
  for (const [at, value] of given.entries()) {
    if (isSql(value)) {
      goOn(value.parts[0] ?? '');
      parts.push(...value.parts.slice(1));
      values.push(...value.values);
      goOn(texts[at + 1] ?? '');
    } else {
      values.push(value);
      parts.push(texts[at + 1] ?? '');
    }
  }
  return statement(parts, values);
}

const CODE = /^[a-z][a-z-]*$/;

/**
 * A list of the code's own words, as `('sent', 'seen')`: it stands in the text, since a partial index is only taken by words that do.
 *
 * @throws Error for anything but small letters and hyphens
 */
export function oneOf(codes: readonly string[]): Statement {
  const strange = codes.find((code) => !CODE.test(code));
  if (strange !== undefined || codes.length === 0) throw new Error(`Not a code: ${strange}`);
  return statement([`(${codes.map((code) => `'${code}'`).join(', ')})`], []);
}

/**
 * A limit that stands in the text: as a value the planner would guess it anew, or take any number of rows for possible, and never keep a
 * plan. @throws Error for what is no whole number above 0
 */
export function most(count: number): Statement {
  if (!Number.isSafeInteger(count) || count < 1) throw new Error(`Not a limit: ${count}`);
  return statement([String(count)], []);
}

/** A name of a table or a column that came from the catalog. @throws Error for what no name of ours looks like */
export function identifier(name: string): Statement {
  if (!/^[a-z_][a-z_0-9]*$/.test(name)) throw new Error(`Not a name: ${name}`);
  return statement([`"${name}"`], []);
}

/** No SQL at all, where a piece is left out. */
export const NONE = sql``;

/** Pieces one after the other, such as conditions with `and` between them. */
export const joined = (pieces: readonly Statement[], between: Statement): Statement =>
  pieces.reduce((all, piece, at) => (at === 0 ? piece : sql`${all}${between}${piece}`), NONE);

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
export async function many<Row>(db: Connection, asked: Statement): Promise<Row[]> {
  const result = await db.query(prepared(asked));
  return result.rows as Row[];
}

/** The only row, or null. @throws Error where there are several */
export async function maybeOne<Row>(db: Connection, asked: Statement): Promise<Row | null> {
  const rows = await many<Row>(db, asked);
  if (rows.length > 1) throw new Error(`Expected one row at most, got ${rows.length}`);
  return rows[0] ?? null;
}

/** The only row. @throws Error where there is not exactly one */
export async function one<Row>(db: Connection, asked: Statement): Promise<Row> {
  const row = await maybeOne<Row>(db, asked);
  if (row === null) throw new Error('Expected one row, got none');
  return row;
}

/** Runs a write; tells how many rows it touched. */
export async function run(db: Connection, asked: Statement): Promise<number> {
  const result = await db.query(prepared(asked));
  return result.rowCount ?? 0;
}

/**
 * Whether a row of a table was refused since one with the same key is there already. By table and not by the key's name: where a
 * table is cut into pieces, each has a number behind the table's name and keys with names of their own.
 */
export const isTaken = (error: unknown, table: string): boolean =>
  error instanceof Error &&
  'code' in error &&
  error.code === '23505' &&
  'table' in error &&
  String(error.table).replace(/_\d+$/, '') === table;

/** Rows of a set as one value: `from jsonb_to_recordset(${records(rows)}::jsonb) as given (id uuid, …)`. Whole sums become texts. */
export const records = (rows: readonly object[]): string =>
  JSON.stringify(rows, (_, value: unknown) => (typeof value === 'bigint' ? String(value) : value));

/** A `like` pattern for text that holds these words, in lower case: `%` and `_` that a person typed are no wildcards. */
export const likePattern = (words: string): string => `%${words.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`;

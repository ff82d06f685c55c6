/** All that a business has, table by table, to be taken along. */
import { type Papers, papersWhere } from './customer-data';
import type { Db } from './pool';
import { identifier, joined, many, NONE, sql } from './sql';

/**
 * What of each table is not taken along: columns with secrets, keys of the house, or bytes that come as files of their own; a whole
 * table where nothing in it means anything elsewhere. Every other table comes whole.
 */
export const LEFT_BEHIND: Readonly<Record<string, readonly string[] | 'all'>> = {
  businesses: ['signing_secret', 'feed_version'],
  people: ['password_hash'],
  customers: ['search', 'name_key'],
  items: ['search'],
  invoices: ['link_token'],
  orders: ['token', 'checkout_key'],
  plans: ['link_token'],
  cards: ['kept_id', 'fingerprint'],
  payments: ['attempt_key', 'sale_id', 'approval_url'],
  refunds: ['request_key'],
  credit_notes: ['request_key'],
  messages: ['message_key'],
  invitations: ['nonce'],
  hooks: ['secret', 'earlier_secret'],
  program_keys: ['secret_hash'],
  program_answers: 'all',
  files: ['bytes'],
  documents: 'all',
  identity_pictures: 'all',
  sessions: 'all',
  sign_in_names: 'all',
  unconfirmed_names: 'all',
  mail_proofs: 'all',
  link_keys: 'all',
  earlier_names: 'all',
  card_claims: 'all',
  stuck_jobs: 'all',
  daily_looks: 'all',
  csv_mappings: 'all',
  // Sums of what comes along itself.
  invoice_sums: 'all',
  register_sums: 'all',
  offer_sums: 'all',
  code_sums: 'all',
};

type Column = { readonly name: string; readonly type: string };
/** A table to be taken along, with the columns that tell its rows apart within a business. */
export type TakenTable = { readonly name: string; readonly key: readonly Column[]; readonly hidden: readonly string[] };

/** The tables with rows of businesses, by name; those that stay behind left out. */
export async function takenTables(db: Db): Promise<TakenTable[]> {
  const rows = await many<{ name: string; key: Column[] }>(
    db,
    sql`select c.relname::text as name, coalesce(jsonb_agg(jsonb_build_object('name', a.attname, 'type', t.typname) order by k.place)
          filter (where a.attname <> 'business_id'), '[]') as key
        from pg_class c join pg_index i on i.indrelid = c.oid and i.indisprimary
          cross join unnest(i.indkey::int[]) with ordinality k (number, place)
          join pg_attribute a on a.attrelid = c.oid and a.attnum = k.number join pg_type t on t.oid = a.atttypid
        where c.relnamespace = 'public'::regnamespace and c.relkind in ('r', 'p') and not c.relispartition
          and exists (select from pg_attribute b where b.attrelid = c.oid and b.attname = 'business_id' and not b.attisdropped)
        group by c.relname order by c.relname`,
  );
  return rows.flatMap(({ name, key }) => {
    const left = LEFT_BEHIND[name] ?? [];
    return left === 'all' ? [] : [{ name, key, hidden: ['business_id', ...left] }];
  });
}

/** The next rows of a table in the order of its key. @param after the key of the last one before as texts; null for the first */
export async function takenRows(
  db: Db,
  { name, key, hidden }: TakenTable,
  after: readonly string[] | null,
  most: number,
): Promise<{ readonly row: object; readonly key: string[] }[]> {
  const columns = key.map((column) => identifier(column.name));
  const list = joined(columns, sql`, `);
  const from =
    after && key.length > 0
      ? sql`and (${list}) > (${joined(
          key.map(({ type }, at) => sql`${after[at] ?? ''}::text::${identifier(type)}`),
          sql`, `,
        )})`
      : NONE;
  if (after && key.length === 0) return [];
  const order = key.length > 0 ? sql`order by ${list}` : NONE;
  const keys =
    key.length > 0
      ? joined(
          columns.map((column) => sql`${column}::text`),
          sql`, `,
        )
      : NONE;
  return many(
    db,
    sql`select to_jsonb(x) - ${[...hidden]}::text[] as row, array[${keys}]::text[] as key from ${identifier(name)} x
        where business_id = ${db.businessId} ${from} ${order} limit ${most}`,
  );
}

const ALL = sql`true`;

/** Every paper and file. */
export const allPapers = (db: Db): Promise<Papers> =>
  papersWhere(db, { invoices: ALL, credits: ALL, receipts: ALL, files: ALL });

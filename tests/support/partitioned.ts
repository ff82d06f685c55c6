/** The whole schema as a distributed PostgreSQL asks for it: every table of a business hash-partitioned by business. */
import pg from 'pg';
import { schemaOf } from '../../bin/docs/schema';
import { STAND_IN_TICKETS } from '../../bin/stack/programs';
import { keepTicketKey, migrateJobs, prepareDatabase } from '../../src/db/migrate';

/** How many pieces each table is cut into: enough that two businesses seldom share one. */
const PIECES = 8;

/** Tables of a business; those that are copied everywhere say so in the catalog. */
export const BUSINESS_TABLES = `
  select relname from pg_class join pg_attribute on attrelid = pg_class.oid and attname = 'business_id' and not attisdropped
  where relnamespace = 'public'::regnamespace and relkind in ('r', 'p') and not relispartition
    and coalesce(obj_description(pg_class.oid, 'pg_class'), '') not like 'copied everywhere:%'
  order by relname`;

/** The statements of a schema with these tables partitioned: nothing else of it is changed. */
export function partitioned(schema: string, tables: readonly string[]): string {
  const cut = tables.reduce(
    (text, table) =>
      text
        .replace(new RegExp(`(CREATE TABLE public\\.${table} \\([^;]*\\));`), '$1 PARTITION BY HASH (business_id);')
        .replaceAll(`ALTER TABLE ONLY public.${table}\n`, `ALTER TABLE public.${table}\n`),
    schema,
  );
  const pieces = tables.flatMap((table) =>
    Array.from(
      { length: PIECES },
      (_, at) =>
        `create table public.${table}_${at} partition of public.${table} for values with (modulus ${PIECES}, remainder ${at});`,
    ),
  );
  return ['set check_function_bodies = false;', cut, ...pieces].join('\n');
}

/** Makes a database whose tables are partitioned, from one that is migrated. @param admin a superuser's URL of the server */
export async function preparePartitioned(admin: string, source: string, name: string): Promise<void> {
  const urls = await prepareDatabase(admin, name);
  await migrateJobs(urls);
  const within = new URL(admin);
  const run = async <Row>(database: string, text: string, as = within.username): Promise<Row[]> => {
    const url = new URL(admin);
    url.pathname = `/${database}`;
    url.username = as;
    const client = new pg.Client({ connectionString: url.toString() });
    await client.connect();
    try {
      return (await client.query(text)).rows as Row[];
    } finally {
      await client.end();
    }
  };
  within.pathname = `/${source}`;
  const tables = (await run<{ relname: string }>(source, BUSINESS_TABLES)).map(({ relname }) => relname);
  const said = await run<{ line: string }>(
    source,
    `select format('comment on table %I is %L', relname, obj_description(oid, 'pg_class')) as line from pg_class
     where relnamespace = 'public'::regnamespace and relkind = 'r' and obj_description(oid, 'pg_class') is not null`,
  );
  await run(name, 'create extension if not exists pg_trgm');
  await run(name, partitioned(schemaOf(within.toString()), tables), 'dahlia_owner');
  for (const { line } of said) await run(name, line);
  const owner = new pg.Client({ connectionString: urls.owner });
  await owner.connect();
  await keepTicketKey(owner, STAND_IN_TICKETS);
  await owner.end();
}

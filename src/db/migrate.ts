import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { runMigrations } from 'graphile-worker';
import { runner } from 'node-pg-migrate';
import pg from 'pg';
import { hmacPads, ticketSecret } from './ticket';

const FOLDER = join(process.cwd(), 'src/db/migrations');

/** Connection strings of one database for its three roles. */
export type DatabaseUrls = { readonly owner: string; readonly app: string; readonly jobs: string };

/** The URLs of the three roles for a database on the server at `admin`. @param password none where the server trusts loopback */
export function databaseUrls(admin: string, database: string): DatabaseUrls {
  const as = (role: string) => {
    const url = new URL(admin);
    url.username = role;
    url.pathname = `/${database}`;
    return url.toString();
  };
  return { owner: as('dahlia_owner'), app: as('dahlia_app'), jobs: as('dahlia_jobs') };
}

/**
 * Makes the three roles and an empty database owned by one of them, where they are missing.
 *
 * `dahlia_owner` owns the tables, `dahlia_app` is the application and cannot bypass row-level security, `dahlia_jobs` owns
 * the job queue only.
 *
 * @param admin a superuser's URL
 */
export async function prepareDatabase(admin: string, database: string): Promise<DatabaseUrls> {
  await withClient(admin, async (client) => {
    for (const role of ['dahlia_owner', 'dahlia_app', 'dahlia_jobs']) {
      await client.query(`do $$ begin
        create role ${role} login nosuperuser nobypassrls nocreatedb nocreaterole;
      exception when duplicate_object or unique_violation then null; end $$`);
    }
    const found = await client.query('select 1 from pg_database where datname = $1', [database]);
    if (found.rowCount === 0) await client.query(`create database "${database}" owner dahlia_owner`);
    for (const grant of databaseGrants(database)) await client.query(grant);
  });
  return databaseUrls(admin, database);
}

/** Who may do what with a database as a whole: nobody but its three roles may even enter. */
export const databaseGrants = (database: string): readonly string[] => [
  `revoke all on database "${database}" from public`,
  `grant connect on database "${database}" to dahlia_owner, dahlia_app, dahlia_jobs`,
  `grant create on database "${database}" to dahlia_jobs`,
];

/** Makes the job queue, and the one way in which a transaction of the application puts a job there. */
export async function migrateJobs(urls: DatabaseUrls): Promise<void> {
  await runMigrations({ connectionString: urls.jobs });
  await withClient(urls.jobs, async (client) => {
    await client.query('grant usage on schema graphile_worker to dahlia_owner');
    await client.query(`create or replace function graphile_worker.enqueue(task text, payload json, at timestamptz, key text)
      returns void language sql security definer set search_path = graphile_worker, public, pg_temp as $$
        select graphile_worker.add_job(identifier => task, payload => payload, run_at => at, max_attempts => 25,
          job_key => key, job_key_mode => 'preserve_run_at') $$`);
    await client.query(`create or replace function graphile_worker.waiting() returns table (task text, seconds float8)
      language sql stable security definer set search_path = graphile_worker, pg_temp as $$
        select t.identifier, extract(epoch from now() - min(j.run_at))::float8 from _private_jobs j join _private_tasks t on t.id = j.task_id
        where j.locked_at is null and j.attempts < j.max_attempts and j.run_at <= now() group by t.identifier $$`);
    await client.query(`create or replace function graphile_worker.open_keys() returns setof text
      language sql stable security definer set search_path = graphile_worker, pg_temp as $$
        select key from _private_jobs where key is not null and attempts < max_attempts $$`);
    for (const name of ['enqueue(text, json, timestamptz, text)', 'waiting()', 'open_keys()']) {
      await client.query(`revoke all on function graphile_worker.${name} from public`);
      await client.query(`grant execute on function graphile_worker.${name} to dahlia_owner`);
    }
  });
}

/**
 * Brings the database to the newest migration: forward only, each file in its own transaction, under an advisory lock.
 *
 * @param files how many files at most, counted from where the database is; for trying an upgrade
 * @param secret signs tickets from now on; TICKET_SECRET unless given
 * @throws Error where a file that was applied has been edited since
 */
export async function migrate(
  urls: DatabaseUrls,
  { files = Number.POSITIVE_INFINITY, secret = ticketSecret() }: { files?: number; secret?: string } = {},
): Promise<void> {
  await migrateJobs(urls);
  await withClient(urls.owner, async (client) => {
    await refuseEditedFiles(client);
    await runner({
      dbClient: client,
      dir: FOLDER,
      direction: 'up',
      migrationsTable: 'migrations',
      log: () => undefined,
      checkOrder: true,
      count: files,
      singleTransaction: false,
    });
    await client.query('create table if not exists migration_hashes (name text primary key, sha256 text not null)');
    for (const [name, hash] of fileHashes()) {
      await client.query('insert into migration_hashes values ($1, $2) on conflict do nothing', [name, hash]);
    }
    await keepTicketKey(client, secret);
  });
}

/** Puts the key of tickets where the database reads it; a database of before the tickets has no such place. */
export async function keepTicketKey(client: pg.Client, secret: string): Promise<void> {
  const { rows } = await client.query(`select to_regclass('ticket_keys') is not null as there`);
  if (!rows[0]?.there) return;
  const { inner, outer } = hmacPads(secret);
  await client.query('begin');
  await client.query('delete from ticket_keys');
  await client.query('insert into ticket_keys (inner_pad, outer_pad) values ($1, $2)', [inner, outer]);
  await client.query('commit');
}

/** Lets the sign-in page name who can sign in: for the demo, where everybody may be anybody. */
export const allowDemoPeople = (urls: DatabaseUrls): Promise<unknown> =>
  withClient(urls.owner, (client) => client.query('grant execute on function demo_people() to dahlia_app'));

function fileHashes(): Map<string, string> {
  const files = readdirSync(FOLDER).filter((name) => name.endsWith('.sql'));
  return new Map(
    files.map((name) => [
      name,
      createHash('sha256')
        .update(readFileSync(join(FOLDER, name)))
        .digest('hex'),
    ]),
  );
}

async function refuseEditedFiles(client: pg.Client): Promise<void> {
  const known = await client.query(`select to_regclass('migration_hashes') is not null as there`);
  if (!known.rows[0]?.there) return;
  const applied = await client.query('select name, sha256 from migration_hashes');
  const hashes = fileHashes();
  for (const { name, sha256 } of applied.rows as { name: string; sha256: string }[]) {
    if (hashes.get(name) !== sha256)
      throw new Error(`Migration ${name} was edited after it was applied: write a new one`);
  }
}

async function withClient<T>(connectionString: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** The whole of a database as one file, and back: rows, policies, rights and the queue. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { createReadStream, existsSync, readFileSync, writeFileSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import pg from 'pg';
import { programs } from '../docs/schema';

/** What a backup is known by: when it was made, what is in it, and the file's SHA-256. */
export type Manifest = {
  readonly madeAt: string;
  readonly sha256: string;
  readonly migrations: number;
  readonly policies: number;
  /** Rows by table, as of one moment. */
  readonly rows: Readonly<Record<string, number>>;
};

const manifestOf = (file: string): string => `${file}.json`;

export async function asSuperuser<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** A database on the server of a superuser's URL. */
export function urlOf(superuser: string, database: string): string {
  const url = new URL(superuser);
  url.pathname = `/${database}`;
  return url.toString();
}

/** What can be counted of a database. */
export async function counted(client: pg.Client): Promise<Pick<Manifest, 'migrations' | 'policies' | 'rows'>> {
  const one = async (text: string): Promise<number> => Number((await client.query(text)).rows[0]?.n ?? 0);
  const { rows: tables } = await client.query(
    `select format('%I.%I', nspname, relname) as name from pg_class join pg_namespace n on n.oid = relnamespace
     where nspname in ('public', 'graphile_worker') and relkind = 'r' and relname <> 'ticket_keys' order by 1`,
  );
  const rows: Record<string, number> = {};
  for (const { name } of tables as { name: string }[]) rows[name] = await one(`select count(*) as n from ${name}`);
  return {
    migrations: await one('select count(*) as n from migrations'),
    policies: await one(`select count(*) as n from pg_policies where schemaname = 'public'`),
    rows,
  };
}

async function sha256Of(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

/**
 * Writes a database to a file, all of it as of one moment, beside its manifest. The key of tickets is left out: whoever restores
 * has it from outside, as every other secret.
 *
 * @param superuser the server's URL as a superuser
 * @throws Error where the file exists
 */
export async function backUp(superuser: string, database: string, file: string): Promise<Manifest> {
  if (existsSync(file)) throw new Error(`${file} exists: a backup writes over nothing`);
  const url = urlOf(superuser, database);
  return asSuperuser(url, async (client) => {
    // Counted and dumped in one snapshot.
    await client.query('begin isolation level repeatable read read only');
    const { rows } = await client.query('select pg_export_snapshot() as snapshot');
    const counts = await counted(client);
    execFileSync(
      `${programs()}/pg_dump`,
      [
        '--format=custom',
        '--exclude-table-data=public.ticket_keys',
        `--snapshot=${rows[0].snapshot}`,
        `--file=${file}`,
        url,
      ],
      { stdio: ['ignore', 'ignore', 'inherit'] },
    );
    await client.query('commit');
    const manifest: Manifest = { madeAt: new Date().toISOString(), sha256: await sha256Of(file), ...counts };
    writeFileSync(manifestOf(file), `${JSON.stringify(manifest, null, 2)}\n`);
    return manifest;
  });
}

/** The manifest of a backup whose file is whole. @throws Error where one of both is missing, or the file is another */
export async function soundBackup(file: string): Promise<Manifest> {
  if (!existsSync(file) || !existsSync(manifestOf(file)))
    throw new Error(`${file} and ${manifestOf(file)} are both needed`);
  const manifest = JSON.parse(readFileSync(manifestOf(file), 'utf8')) as Manifest;
  if ((await sha256Of(file)) !== manifest.sha256)
    throw new Error(`${file} is not the file that was written: it is damaged`);
  return manifest;
}

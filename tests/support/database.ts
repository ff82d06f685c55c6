import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { inject } from 'vitest';
import { type DatabaseUrls, databaseUrls } from '@/db/migrate';

/** A database of one's own, copied from the suite's template. */
export async function ownDatabase(): Promise<DatabaseUrls & { admin: string }> {
  const server = inject('admin');
  const name = `dahlia_${randomBytes(6).toString('hex')}`;
  const client = new pg.Client({ connectionString: server });
  await client.connect();
  // Two files may copy at the same moment: the template allows one at a time.
  await client.query('select pg_advisory_lock(4711)');
  try {
    await client.query(`create database "${name}" template ${inject('template')} owner dahlia_owner`);
    await client.query(`grant create on database "${name}" to dahlia_jobs`);
  } finally {
    await client.query('select pg_advisory_unlock(4711)');
    await client.end();
  }
  const admin = new URL(server);
  admin.pathname = `/${name}`;
  return { ...databaseUrls(server, name), admin: admin.toString() };
}

/** Runs one statement past every wall, to look at what is really there. */
export async function asSuperuser<Row = Record<string, unknown>>(
  admin: string,
  text: string,
  values: unknown[] = [],
): Promise<Row[]> {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  try {
    return (await client.query(text, values)).rows as Row[];
  } finally {
    await client.end();
  }
}

import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { inject } from 'vitest';
import { type DatabaseUrls, databaseGrants, databaseUrls } from '@/db/migrate';
import { ticketFor } from '@/db/ticket';

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
    for (const grant of databaseGrants(name)) await client.query(grant);
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
  // A server that goes away is told to whoever asks, and does not end the whole program.
  client.on('error', () => undefined);
  await client.connect();
  try {
    return (await client.query(text, values)).rows as Row[];
  } finally {
    await client.end().catch(() => undefined);
  }
}

/** Names the business of a connection of the application's role, as its transactions do. */
export async function enter(client: pg.Client, businessId: string): Promise<void> {
  const { rows } = await client.query('select pg_backend_pid() as process');
  await client.query(`select set_config('dahlia.ticket', $1, false)`, [ticketFor(businessId, rows[0].process)]);
}

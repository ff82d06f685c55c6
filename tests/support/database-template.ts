import { existsSync } from 'node:fs';
import pg from 'pg';
import type { TestProject } from 'vitest/node';
import { STAND_IN_TICKETS, startDatabase } from '../../bin/stack/programs';
import { migrate, prepareDatabase } from '../../src/db/migrate';
import { preparePartitioned } from './partitioned';

declare module 'vitest' {
  interface ProvidedContext {
    admin: string;
    /** The database of which each test file gets a copy. */
    template: string;
  }
}

const WHOLE = 'dahlia_template';
const PARTITIONED = 'dahlia_partitioned';
const FOLDER = '.data/test';

// The suites of one run share the server, and what an earlier run left there is cleared away once.
const once = globalThis as { dahliaTestServer?: Promise<string> };

async function freshServer(): Promise<string> {
  if (!existsSync('/usr/lib/postgresql')) throw new Error('PostgreSQL is missing: run bin/setup');
  const admin = startDatabase(`${process.cwd()}/${FOLDER}`, false);
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  const old = await client.query("select datname from pg_database where datname like 'dahlia%'");
  for (const { datname } of old.rows) await client.query(`drop database "${datname}" with (force)`);
  await client.end();
  await migrate(await prepareDatabase(admin, WHOLE), { secret: STAND_IN_TICKETS });
  return admin;
}

/** Starts the tests' own PostgreSQL and makes the database from which each test file's own is copied. */
export default async function setup(project: TestProject): Promise<void> {
  once.dahliaTestServer ??= freshServer();
  const admin = await once.dahliaTestServer;
  const template = project.name === 'scale' ? PARTITIONED : WHOLE;
  if (template === PARTITIONED) await preparePartitioned(admin, WHOLE, PARTITIONED);
  project.provide('admin', admin);
  project.provide('template', template);
}

import { existsSync } from 'node:fs';
import pg from 'pg';
import type { TestProject } from 'vitest/node';
import { startDatabase } from '../../bin/stack/programs';
import { migrate, prepareDatabase } from '../../src/db/migrate';

declare module 'vitest' {
  interface ProvidedContext {
    admin: string;
  }
}

export const TEMPLATE = 'dahlia_template';
const FOLDER = '.data/test';

/** Starts the tests' own PostgreSQL and makes the migrated database from which each test file's own is copied. */
export default async function setup(project: TestProject): Promise<void> {
  if (!existsSync('/usr/lib/postgresql')) throw new Error('PostgreSQL is missing: run bin/setup');
  const admin = startDatabase(`${process.cwd()}/${FOLDER}`, false);
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  const old = await client.query("select datname from pg_database where datname like 'dahlia%'");
  for (const { datname } of old.rows) await client.query(`drop database "${datname}" with (force)`);
  await client.end();
  await migrate(await prepareDatabase(admin, TEMPLATE));
  project.provide('admin', admin);
}

/** Whether a database is there and as far as the code, before anything is served from it. */
import { readdirSync } from 'node:fs';
import pg from 'pg';

const LONGEST_MS = 8000;
const FOLDER = 'src/db/migrations';

async function asked(connectionString: string, text: string): Promise<unknown> {
  const client = new pg.Client({ connectionString, connectionTimeoutMillis: LONGEST_MS, query_timeout: LONGEST_MS });
  await client.connect();
  try {
    return Object.values((await client.query(text)).rows[0] ?? {})[0];
  } finally {
    await client.end();
  }
}

const whyNot = (error: unknown): string => (error instanceof Error && error.message ? error.message : 'no answer');
const UPDATE = 'npx tsx bin/migrate.ts SUPERUSER_URL brings it up to date.';

/** What stands in the way of serving, a sentence each; none where nothing does. @param app the application's URL @param jobs the queue's */
export async function databaseTroubles(app: string, jobs: string): Promise<string[]> {
  const newest =
    readdirSync(FOLDER)
      .sort()
      .at(-1)
      ?.replace(/\.sql$/, '') ?? '';
  const troubles: string[] = [];
  try {
    const there = await asked(app, 'select newest_migration()');
    if (typeof there === 'string' && there < newest)
      troubles.push(`The database is at ${there}, the code at ${newest}: ${UPDATE}`);
    if (typeof there === 'string' && there > newest)
      troubles.push(`The database is at ${there} already, and the code only at ${newest}: start the newer code.`);
  } catch (error) {
    const isOld = error instanceof Error && 'code' in error && error.code === '42883';
    troubles.push(isOld ? `The database is of before this code: ${UPDATE}` : `DATABASE_URL: ${whyNot(error)}.`);
  }
  try {
    await asked(jobs, 'select 1');
  } catch (error) {
    troubles.push(`JOBS_DATABASE_URL: ${whyNot(error)}.`);
  }
  return troubles;
}

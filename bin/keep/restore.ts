import { execFileSync } from 'node:child_process';
import pg from 'pg';
import { businessIds } from '@/db/businesses';
import { decidedRights, rightsTroubles } from '@/db/decided-rights';
import { ledgerTroubles } from '@/db/ledger';
import { type DatabaseUrls, keepTicketKey, prepareDatabase } from '@/db/migrate';
import { outsideBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { programs } from '../docs/schema';
import { asSuperuser, counted, type Manifest, soundBackup, urlOf } from './backup';

/** What is wrong with a database that was restored; empty is the only good answer. */
export type Troubles = readonly string[];

/** Everything that a backup promised, compared with what is there: rows, policies, rights of each role. */
export async function restoredTroubles(superuser: string, database: string, manifest: Manifest): Promise<Troubles> {
  return asSuperuser(urlOf(superuser, database), async (client) => {
    const found = await counted(client);
    const rows = Object.entries(manifest.rows).flatMap(([table, rows]) =>
      found.rows[table] === rows
        ? []
        : [`${table}: ${rows} rows were kept, ${found.rows[table] ?? 'no table'} are here`],
    );
    const policies =
      found.policies === manifest.policies
        ? []
        : [`${manifest.policies} policies were kept, ${found.policies} are here`];
    return [...rows, ...policies, ...(await rightsTroubles(client, decidedRights))];
  });
}

/** The proof of the books of every business, as the application sees them: through the walls. */
export async function booksTroubles(urls: DatabaseUrls): Promise<Troubles> {
  process.env.DATABASE_URL = urls.app;
  const troubles: string[] = [];
  for (const businessId of await outsideBusiness(businessIds)) {
    const own = await programContext(businessId).read((db) => ledgerTroubles(db));
    troubles.push(...own.map(({ what, subject, off }) => `${businessId}: ${what}, ${subject}, ${off}`));
  }
  return troubles;
}

/**
 * Makes a database from a backup: the roles first, then everything, and the key of tickets from outside. Nothing is written over.
 *
 * @param superuser the server's URL as a superuser
 * @param secret signs tickets from now on
 * @throws Error where the database exists, or the backup is not whole
 */
export async function restore(
  superuser: string,
  database: string,
  file: string,
  secret: string,
): Promise<{ urls: DatabaseUrls; manifest: Manifest }> {
  const manifest = await soundBackup(file);
  const there = await asSuperuser(superuser, (client) =>
    client.query('select 1 from pg_database where datname = $1', [database]),
  );
  if (there.rowCount !== 0) throw new Error(`The database ${database} exists: restore into a new name`);
  const urls = await prepareDatabase(superuser, database);
  execFileSync(
    `${programs()}/pg_restore`,
    ['--exit-on-error', '--single-transaction', `--dbname=${urlOf(superuser, database)}`, file],
    { stdio: ['ignore', 'ignore', 'inherit'] },
  );
  const owner = new pg.Client({ connectionString: urls.owner });
  await owner.connect();
  try {
    await keepTicketKey(owner, secret);
    // What the demo allows itself is not kept: it allows it anew when it starts.
    await owner.query('revoke execute on function demo_people() from dahlia_app');
    await owner.query('analyze');
  } finally {
    await owner.end();
  }
  return { urls, manifest };
}

/** Makes the roles and the database where they are missing, and brings it to the newest migration. Prints its URLs as shell settings. */
import { migrate, prepareDatabase } from '@/db/migrate';

const [admin, database = 'dahlia'] = process.argv.slice(2);
if (!admin) {
  process.stderr.write('usage: tsx bin/migrate.ts SUPERUSER_URL [DATABASE]\n');
  process.exit(2);
}
const urls = await prepareDatabase(admin, database);
await migrate(urls);
process.stdout.write(`DATABASE_URL=${urls.app}\nJOBS_DATABASE_URL=${urls.jobs}\n`);

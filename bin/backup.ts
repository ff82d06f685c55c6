/** Backs a database up: tsx bin/backup.ts SUPERUSER_URL FILE [DATABASE] */
import { backUp } from './keep/backup';

const [superuser, file, database = 'dahlia'] = process.argv.slice(2);
if (!superuser || !file) {
  process.stderr.write('usage: bin/backup SUPERUSER_URL FILE [DATABASE]\n');
  process.exit(2);
}
try {
  const { rows, policies } = await backUp(superuser, database, file);
  const total = Object.values(rows).reduce((sum, n) => sum + n, 0);
  process.stdout.write(`${file}: ${total} rows of ${Object.keys(rows).length} tables, ${policies} policies\n`);
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
}

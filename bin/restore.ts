/** Restores a backup into a new database and proves it: tsx bin/restore.ts SUPERUSER_URL FILE DATABASE */
import { closePool } from '@/db/pool';
import { ticketSecret } from '@/db/ticket';
import { booksTroubles, restore, restoredTroubles } from './keep/restore';

const [superuser, file, database] = process.argv.slice(2);
if (!superuser || !file || !database) {
  process.stderr.write('usage: TICKET_SECRET=… bin/restore SUPERUSER_URL FILE DATABASE\n');
  process.exit(2);
}
try {
  const { urls, manifest } = await restore(superuser, database, file, ticketSecret());
  const troubles = [...(await restoredTroubles(superuser, database, manifest)), ...(await booksTroubles(urls))];
  await closePool();
  for (const trouble of troubles) process.stdout.write(`${trouble}\n`);
  if (troubles.length > 0)
    throw new Error(`${troubles.length} things are not as they were kept: do not use ${database}`);
  process.stdout.write(
    `${database} is as it was at ${manifest.madeAt}: rows, policies, rights and books agree.\n` +
      'What was charged since then is in the card processor’s book and not here: compare before the worker is started.\n' +
      `DATABASE_URL=${urls.app}\nJOBS_DATABASE_URL=${urls.jobs}\n`,
  );
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exit(1);
}

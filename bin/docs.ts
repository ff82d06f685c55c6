/** Writes docs/schema.sql and docs/routes.md anew, from the migrations and the routes: npm run docs */
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { migrate, prepareDatabase } from '@/db/migrate';
import { routesMap } from './docs/routes';
import { schemaOf } from './docs/schema';
import { STAND_IN_TICKETS, startDatabase, stopDatabase } from './stack/programs';

const folder = join(process.cwd(), '.data/docs');
rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const server = startDatabase(folder, false);
try {
  await migrate(await prepareDatabase(server, 'dahlia'), { secret: STAND_IN_TICKETS });
  writeFileSync('docs/schema.sql', schemaOf(server.replace(/\/postgres$/, '/dahlia')));
  writeFileSync('docs/routes.md', await routesMap());
} finally {
  stopDatabase(folder);
  rmSync(folder, { recursive: true, force: true });
}
process.exit(0);

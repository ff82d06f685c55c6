/** Back to a moment by PostgreSQL's own archive, as docs/running.md describes it: what was before is there, what came after is not. */
import { execFileSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { checkBooks } from '@/flows/house/check-books';
import { takePayment } from '@/flows/payment/take-payment';
import { programs } from '../../bin/docs/schema';
import { startDatabase, stopDatabase } from '../../bin/stack/programs';
import { asSuperuser } from '../../tests/support/database';
import { until } from '../../tests/support/until';
import { cardToken, foundHouse, openWorkshop, sentInvoice } from '../../tests/support/workshop';
import { migrate, prepareDatabase } from './migrate';
import { closePool } from './pool';

const folder = mkdtempSync(join(tmpdir(), 'dahlia-moment-'));
const [first, second, archive] = ['first', 'second', 'archive'].map((name) => join(folder, name)) as [
  string,
  string,
  string,
];
afterAll(() => {
  for (const one of [first, second]) stopDatabase(one);
});

/** As who runs the server: the packaged user where this is root, who may not. */
const asServer = (...command: string[]): void => {
  const [program = '', ...args] =
    process.getuid?.() === 0
      ? [
          'setpriv',
          '--reuid=postgres',
          '--regid=postgres',
          '--init-groups',
          'env',
          '-i',
          'HOME=/tmp',
          `PATH=${programs()}:/usr/bin:/bin`,
          ...command,
        ]
      : command;
  execFileSync(program, args, { stdio: ['ignore', 'ignore', 'inherit'] });
};

test('a base backup and the archive bring everything up to a moment, and nothing of later', async () => {
  chmodSync(folder, 0o777);
  mkdirSync(archive);
  chmodSync(archive, 0o777);
  const described = readFileSync('docs/running.md', 'utf8');
  const settings = [...described.matchAll(/^alter system set .*;$/gm)].map(([line]) =>
    line.replaceAll('/archive', archive),
  );
  expect(settings).toHaveLength(3);
  let server = startDatabase(first);
  for (const line of settings) await asSuperuser(server, line);
  stopDatabase(first);
  server = startDatabase(first);

  const workshop = await openWorkshop({}, async () => {
    const urls = await prepareDatabase(server, 'moment');
    await migrate(urls);
    return { ...urls, admin: server.replace(/\/[^/]*$/, '/moment') };
  });
  const house = await foundHouse('Kept');
  const pay = async (link: string) => {
    const token = await cardToken(workshop.standIns, 'corvid-good');
    await takePayment(link, { attemptKey: crypto.randomUUID(), cardToken: token, amountMinor: 11_000n }, 'a');
  };
  const before = await sentInvoice(house);
  const base = join(folder, 'base');
  asServer(`${programs()}/pg_basebackup`, '-d', server, '-D', base, '-X', 'none', '-c', 'fast');
  await pay(before.link);
  const [{ moment = '' } = {}] = await asSuperuser<{ moment: string }>(
    server,
    `select clock_timestamp()::text as moment`,
  );
  // The moment lies between two transactions, however fast they follow.
  await asSuperuser(server, 'select pg_sleep(0.05)');
  const after = await sentInvoice(house);
  await pay(after.link);
  const [{ file = '' } = {}] = await asSuperuser<{ file: string }>(
    server,
    'select pg_walfile_name(pg_switch_wal()) as file',
  );
  await until('the log is in the archive', async () => readdirSync(archive).includes(file));
  await closePool();
  stopDatabase(first);

  const data = join(second, 'pg');
  mkdirSync(second);
  const said = /^restore_command.*\nrecovery_target_time.*\nrecovery_target_action.*$/m.exec(described)?.[0] ?? '';
  const wanted = said.replace('/archive', archive).replace(/'2026-11-28 [^']*'/, `'${moment}'`);
  expect(wanted).toContain(moment);
  execFileSync('cp', ['-a', base, data]);
  asServer('sh', '-c', `cat >> "$0/postgresql.auto.conf" <<'END'\n${wanted}\nEND\ntouch "$0/recovery.signal"`, data);
  const anew = startDatabase(second);
  const admin = anew.replace(/\/[^/]*$/, '/moment');
  await until('it goes on from there', async () => {
    const [row] = await asSuperuser<{ back: boolean }>(admin, 'select pg_is_in_recovery() as back');
    return row?.back === false;
  });
  const rows = await asSuperuser(admin, `select number, status from invoices order by number`);
  expect(rows).toEqual([{ number: before.number, status: 'paid' }]);
  const payments = await asSuperuser(admin, `select state from payments`);
  expect(payments).toEqual([{ state: 'paid' }]);
  process.env.DATABASE_URL = admin.replace('postgres@', 'dahlia_app@');
  // The card on its other side is the processor's; the books themselves agree.
  expect((await checkBooks()).map(({ what }) => what)).toEqual([]);
  await workshop.close();
});

/** A charge run while the worker is killed and the database server goes down: nobody is charged twice, nobody is left out. */
import { readFileSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { ledgerTroubles } from '@/db/ledger';
import { migrate, prepareDatabase } from '@/db/migrate';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { STAND_IN_TICKETS, startDatabase, stopDatabase } from '../../bin/stack/programs';
import { asSuperuser } from '../support/database';
import { planTerms, runningPlan, setClock } from '../support/plans';
import { seeded } from '../support/seeded';
import { type Stack, startStack } from '../support/stack';
import { pause } from '../support/until';
import { foundHouse, type House } from '../support/workshop';

/** Each day some plans are charged, and each day something is killed in the middle of it. */
const PLANS = 25;
const DAYS = 16;
const FIRST = '2027-01-04' as CalendarDate;
/** So many looks without any progress are enough. */
const PATIENCE = 90;
const FOLDER = resolve('.data/test/restarted');
const ZONE = 'America/Los_Angeles';

let stack: Stack;
let house: House;
beforeAll(async () => {
  rmSync(FOLDER, { recursive: true, force: true });
  // A server of its own, which writes what it has promised to the disk before it says so: it is going to be killed.
  // An answer takes a while, as at a real processor: there is something to be interrupted.
  stack = await startStack({ STANDINS_DELAY_MS: '300' }, async () => {
    const server = startDatabase(FOLDER);
    const urls = await prepareDatabase(server, 'dahlia');
    await migrate(urls, { secret: STAND_IN_TICKETS });
    const admin = new URL(server);
    admin.pathname = '/dahlia';
    return { ...urls, admin: admin.toString() };
  });
  house = await foundHouse();
});
afterAll(async () => {
  await stack?.close();
  stopDatabase(FOLDER);
});

/** The server stops on the spot, as in a crash, or after having told everybody; then it comes back. */
async function restartDatabase(crash: boolean): Promise<void> {
  if (crash) {
    const pid = Number(readFileSync(`${FOLDER}/pg/postmaster.pid`, 'utf8').split('\n')[0]);
    process.kill(pid, 'SIGQUIT');
    for (let waits = 0; waits < 100; waits++) {
      try {
        process.kill(pid, 0);
        await pause(50);
      } catch {
        break;
      }
    }
  } else stopDatabase(FOLDER);
  await pause(300);
  startDatabase(FOLDER);
}

/** Asks for the minute's work, as the clock would. */
async function minute(): Promise<void> {
  const client = new pg.Client({ connectionString: stack.admin });
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.query(`select graphile_worker.add_job('minute')`);
  } finally {
    await client.end().catch(() => undefined);
  }
}

async function counted(where: string): Promise<number> {
  const [row] = await asSuperuser<{ n: number }>(stack.admin, `select count(*)::int as n from charges where ${where}`);
  return row?.n ?? -1;
}

const left = () => counted(`state <> 'charged'`);

const at = (days: number, minutes = 0): Date =>
  new Date(instantInZone(addDays(FIRST, days), '10:00', ZONE).getTime() + minutes * 60_000);

test('four hundred charges are each made once, whatever is killed', async () => {
  await setClock(stack.standIns, instantInZone(FIRST, '08:00', ZONE));
  const terms = planTerms(house, FIRST, { schedule: { unit: 'day', ends: { after: DAYS } }, receipts: false });
  for (let one = 0; one < PLANS; one++) await runningPlan(house, stack.standIns, terms);

  const random = seeded(73);
  for (let day = 0; day < DAYS; day++) {
    await setClock(stack.standIns, at(day));
    // The blow falls while charges are under way, however long it takes until they are.
    for (let looks = 0; looks < 10 * PATIENCE && (await counted(`state = 'charging'`)) === 0; looks++) {
      if (looks % 20 === 0) await minute();
      await pause(50);
    }
    await pause(random() * 400);
    if (day % 4 === 3) await restartDatabase(day % 8 === 3);
    else await stack.killAndRestart('worker');
  }
  // What a blow left open is asked about and tried again, on a clock that goes on.
  let before = await left();
  for (let looks = 0, minutes = 0; looks < PATIENCE && before > 0; looks++) {
    minutes += 1;
    await setClock(stack.standIns, at(DAYS - 1, minutes));
    await minute();
    await pause(1000);
    const now = await left();
    if (now !== before) looks = 0;
    before = now;
  }
  const twice = await asSuperuser(
    stack.admin,
    `select charge_id from payments where state = 'paid' group by charge_id having count(*) > 1`,
  );
  expect(twice).toEqual([]);
  expect(await asSuperuser(stack.admin, `select state, note from charges where state <> 'charged'`)).toEqual([]);
  const ours = await asSuperuser<{ key: string; amount: number }>(
    stack.admin,
    `select business_id || '.' || id as key, amount_minor::int as amount from payments where state = 'paid' order by 1`,
  );
  expect(ours.length).toBe(PLANS * DAYS);
  const book = await fetch(`${stack.standIns}/cards/api/book`, { headers: { authorization: 'Bearer stand-in-key' } });
  const { sales } = (await book.json()) as { sales: { key: string; status: string; amount: number }[] };
  const theirs = sales.filter(({ status }) => status === 'accepted').map(({ key, amount }) => ({ key, amount }));
  expect(theirs.sort((a, b) => (a.key < b.key ? -1 : 1))).toEqual(ours);
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
  const [numbers] = await asSuperuser<{ n: number; last: number }>(
    stack.admin,
    'select count(*)::int as n, max(number::int) as last from invoices where number is not null',
  );
  expect(numbers).toEqual({ n: PLANS * DAYS, last: PLANS * DAYS });
});

/** A charge run while the worker is killed and the database server goes down: nobody is charged twice, nobody is left out. */
import { readFileSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { ledgerTroubles } from '@/db/ledger';
import { migrate, prepareDatabase } from '@/db/migrate';
import { readBusiness } from '@/db/transaction';
import { startDatabase, stopDatabase } from '../../bin/stack/programs';
import { asSuperuser } from '../support/database';
import { planTerms, runningPlan, setClock } from '../support/plans';
import { seeded } from '../support/seeded';
import { type Stack, startStack } from '../support/stack';
import { foundHouse, type House } from '../support/workshop';

const PLANS = 40;
const DATES = 10;
const BLOWS = 16;
const FOLDER = resolve('.data/test/restarted');
const ZONE = 'America/Los_Angeles';

let stack: Stack;
let house: House;
beforeAll(async () => {
  rmSync(FOLDER, { recursive: true, force: true });
  // A server of its own, which writes what it has promised to the disk before it says so: it is going to be killed.
  stack = await startStack({}, async () => {
    const server = startDatabase(FOLDER);
    const urls = await prepareDatabase(server, 'dahlia');
    await migrate(urls);
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

const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds));

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

async function left(): Promise<number> {
  const [row] = await asSuperuser<{ n: number }>(
    stack.admin,
    `select count(*)::int as n from charges where state in ('charging', 'refused') or (state = 'upcoming' and act_at <= '2027-02-01')`,
  );
  return row?.n ?? -1;
}

// Tried once only: a second try would begin in the middle.
test('four hundred charges are each made once, whatever is killed', { retry: 0 }, async () => {
  await setClock(stack.standIns, instantInZone('2027-01-04' as CalendarDate, '08:00', ZONE));
  const terms = planTerms(house, '2027-01-04', { schedule: { unit: 'day', ends: { after: DATES } }, receipts: false });
  for (let at = 0; at < PLANS; at++) await runningPlan(house, stack.standIns, terms);
  await setClock(stack.standIns, instantInZone('2027-01-31' as CalendarDate, '10:00', ZONE));

  const random = seeded(73);
  let before = await left();
  for (let blow = 0; blow < BLOWS; blow++) {
    // Each falls while charges are being made.
    for (let waits = 0; waits < 300 && (await left()) === before; waits++) {
      if (waits % 30 === 0) await minute();
      await pause(100);
    }
    await pause(random() * 600);
    const now = await left();
    expect(now).toBeLessThan(before);
    expect(now).toBeGreaterThan(0);
    before = now;
    if (blow % 4 === 3) await restartDatabase(blow % 8 === 3);
    else await stack.killAndRestart('worker');
  }
  for (let waits = 0; waits < 120 && (await left()) > 0; waits++) {
    if (waits % 10 === 0) await minute();
    await pause(1000);
  }
  const twice = await asSuperuser(
    stack.admin,
    `select charge_id from payments where state = 'paid' group by charge_id having count(*) > 1`,
  );
  expect(twice).toEqual([]);
  expect(await asSuperuser(stack.admin, `select state, words from charges where state <> 'charged'`)).toEqual([]);
  const ours = await asSuperuser<{ key: string; amount: number }>(
    stack.admin,
    `select business_id || '.' || id as key, amount_minor::int as amount from payments where state = 'paid' order by 1`,
  );
  expect(ours.length).toBe(PLANS * DATES);
  const book = await fetch(`${stack.standIns}/cards/api/book`, { headers: { authorization: 'Bearer stand-in-key' } });
  const { sales } = (await book.json()) as { sales: { key: string; status: string; amount: number }[] };
  const theirs = sales.filter(({ status }) => status === 'accepted').map(({ key, amount }) => ({ key, amount }));
  expect(theirs.sort((a, b) => (a.key < b.key ? -1 : 1))).toEqual(ours);
  expect(await readBusiness(house.business.id, (db) => ledgerTroubles(db, house.business.id))).toEqual([]);
  const [numbers] = await asSuperuser<{ n: number; last: number }>(
    stack.admin,
    'select count(*)::int as n, max(number::int) as last from invoices where number is not null',
  );
  expect(numbers).toEqual({ n: PLANS * DATES, last: PLANS * DATES });
});

/** A thousand charges while the worker is killed at two hundred seeded points, and while the database drops everybody. */
import { expect, test } from 'vitest';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { instantInZone } from '@/core/dates/zone';
import { ledgerTroubles } from '@/db/ledger';
import { readBusiness } from '@/db/transaction';
import { programContext } from '@/flows/door/program';
import { settlePayments } from '@/flows/payment/settle-payment';
import { services } from '@/outside/services';
import { asSuperuser } from '../../../tests/support/database';
import { underTheKnife } from '../../../tests/support/knife';
import { planTerms, runningPlan, setClock } from '../../../tests/support/plans';
import { seeded } from '../../../tests/support/seeded';
import { pause } from '../../../tests/support/until';
import { foundHouse, sharedWorkshop } from '../../../tests/support/workshop';
import { chargeDue } from './charge-due';

const CHARGES = 1000;
const KILLS = 200;
const PLANS = 50;
const MINUTES = 60_000;

const workshop = await sharedWorkshop();
const house = await foundHouse();

const random = seeded(11);

const underKnife = (work: () => Promise<unknown>, steps: number, heard: boolean): Promise<boolean> =>
  underTheKnife(work, { steps, heard, outside: [{ of: services().cards, calls: ['sale'] }] });

/** As the worker does: what has been open for a while is asked about. */
async function settleOpen(): Promise<void> {
  const open = await asSuperuser<{ id: string }>(workshop.admin, `select id from payments where state = 'pending'`);
  await settlePayments(
    house.business.id,
    open.map(({ id }) => id),
  );
}

async function duePlans(start: string): Promise<void> {
  await setClock(workshop.standIns, instantInZone(start as CalendarDate, '08:00', 'America/Los_Angeles'));
  const terms = planTerms(house, start, { schedule: { unit: 'day', ends: { after: CHARGES / PLANS } } });
  for (let at = 0; at < PLANS; at++) await runningPlan(house, workshop.standIns, { ...terms, receipts: false });
  const last = new Date(Date.parse(`${start}T12:00:00Z`) + 30 * 86_400_000).toISOString().slice(0, 10);
  await setClock(workshop.standIns, instantInZone(last as CalendarDate, '10:00', 'America/Los_Angeles'));
}

/** Charges until nothing is due and nothing is open any more. */
async function toTheEnd(): Promise<void> {
  for (let round = 0; round < 40; round++) {
    await chargeDue(house.business.id, { runMs: Number.POSITIVE_INFINITY });
    await settleOpen();
    // What was refused because it never reached the processor comes again soon.
    const [row] = await asSuperuser<{ n: number }>(
      workshop.admin,
      `select count(*)::int as n from charges where state in ('charging', 'refused', 'upcoming')`,
    );
    if (row?.n === 0) return;
    const clock = await fetch(`${workshop.standIns}/clock`).then((answer) => answer.json() as Promise<{ now: string }>);
    await setClock(workshop.standIns, new Date(Date.parse(clock.now) + 2 * MINUTES));
  }
  throw new Error('It does not come to an end');
}

async function bothBooksAgree(charges: number): Promise<void> {
  const ours = await asSuperuser<{ key: string; amount: number }>(
    workshop.admin,
    `select business_id || '.' || id as key, amount_minor::int as amount from payments where state = 'paid' order by 1`,
  );
  expect(ours.length).toBe(charges);
  const twice = await asSuperuser(
    workshop.admin,
    `select charge_id from payments where state = 'paid' group by charge_id having count(*) > 1`,
  );
  expect(twice).toEqual([]);
  const book = await fetch(`${workshop.standIns}/cards/api/book`, { headers: { authorization: 'Bearer test-key' } });
  const { sales } = (await book.json()) as { sales: { key: string; status: string; amount: number }[] };
  const theirs = sales.filter(({ status }) => status === 'accepted').map(({ key, amount }) => ({ key, amount }));
  expect(theirs.sort((a, b) => (a.key < b.key ? -1 : 1))).toEqual(ours);
  const missing = await asSuperuser(workshop.admin, `select id from charges where state <> 'charged'`);
  expect(missing).toEqual([]);
  const numbers = await asSuperuser<{ n: number; last: number }>(
    workshop.admin,
    `select count(*)::int as n, max(number::int) as last from invoices where number is not null`,
  );
  expect(numbers[0]?.n).toBe(numbers[0]?.last);
  expect(await readBusiness(programContext(house.business.id), (db) => ledgerTroubles(db))).toEqual([]);
}

test(
  'killed at two hundred points: nobody is charged twice, nobody is left out, and both books agree',
  async () => {
    await duePlans('2026-03-02');
    let killed = 0;
    for (let kill = 0; kill < KILLS; kill++) {
      // Few at once, so that two hundred kills meet every step of claiming, sending and writing down many times.
      const steps = 1 + Math.floor(random() * 120);
      if (await underKnife(() => chargeDue(house.business.id, { atOnce: 3 }), steps, random() < 0.5)) killed += 1;
      if (kill % 10 === 9) await underKnife(settleOpen, 1 + Math.floor(random() * 60), random() < 0.5);
    }
    expect(killed).toBe(KILLS);
    await toTheEnd();
    await bothBooksAgree(CHARGES);
  },
  15 * MINUTES,
);

test(
  'a database that drops all its connections in mid run, again and again, loses nothing',
  async () => {
    await duePlans('2026-08-03');
    const drop = () =>
      asSuperuser(
        workshop.admin,
        `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()`,
      );
    let over = false;
    const dropping = (async () => {
      for (let times = 0; times < 12 && !over; times++) {
        await pause(400 + random() * 600);
        await drop();
      }
    })();
    for (let tries = 0; tries < 60; tries++) {
      const { more } = await chargeDue(house.business.id, { runMs: Number.POSITIVE_INFINITY }).catch(() => ({
        more: true,
      }));
      if (!more) break;
    }
    over = true;
    await dropping;
    await toTheEnd();
    await bothBooksAgree(2 * CHARGES);
  },
  15 * MINUTES,
);

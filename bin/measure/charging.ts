/** What charging reaches: in one process, by workers, and beside it what the same rows cost without any logic. */
import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { setTimeout } from 'node:timers/promises';
import pg from 'pg';
import { programContext } from '@/flows/door/program';
import { askToCharge } from '@/flows/plan/charge-now';
import { cardToken, foundHouse, type House } from '../../tests/support/workshop';
import { keepCard } from '../stack/card-on-file';
import { writePlans } from './plan-rows';
import { report } from './report';

/** Charging runs so long for each number of due charges; the rest is left. */
const WINDOW_MS = Number(process.env.BENCH_WINDOW_MS ?? 40_000);

type Measured = { readonly admin: string; readonly standIns: string };

async function houseWithPlans({ admin, standIns }: Measured, due: number, more: number, card: string): Promise<House> {
  const house = await foundHouse(`Bench ${due} ${card}`);
  await keepCard(programContext(house.business.id), house.customerId, {
    token: await cardToken(standIns, card),
    key: randomUUID(),
    byName: 'Bench',
  });
  await writePlans(admin, house, { due, more });
  return house;
}

const perCharge = (seconds: number, done: number) => Array.from({ length: done }, () => (seconds * 1000) / done);

/** The most that a process has ever held, in MB, as the kernel counts it. */
const mostHeld = ({ pid }: ChildProcess): number =>
  Math.round(Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1]) / 1024);

type Scene = {
  readonly name: string;
  readonly businesses: number;
  /** Due charges and further plans of each business. */
  readonly due: number;
  readonly more?: number;
  readonly card?: string;
  /** Whether the customer has an address to write to. */
  readonly letters?: boolean;
  readonly processes: number;
};

/** How many outcomes worker processes write down in a while, from the first one on: starting a process is not what is measured. */
async function inWorkers(where: Measured, scene: Scene, workers: Workers): Promise<void> {
  const { name, businesses, due, more = 0, card = 'corvid-good', letters = true, processes } = scene;
  const houses: string[] = [];
  for (let at = 0; at < businesses; at++) {
    const { business } = await houseWithPlans(where, due, more, card);
    houses.push(business.id);
  }
  const client = new pg.Client({ connectionString: where.admin });
  await client.connect();
  const outcomes = async (): Promise<number> =>
    Number(
      (
        await client.query(`select count(*) as n from payments where business_id = any($1) and state <> 'pending'`, [
          houses,
        ])
      ).rows[0]?.n,
    );
  // Nothing of an earlier scene, such as its letters, is done beside this one.
  await client.query('delete from graphile_worker._private_jobs');
  if (!letters) await client.query(`update customers set email = '' where business_id = any($1)`, [houses]);
  for (const id of houses) await programContext(id).write(askToCharge);
  const running = Array.from({ length: processes }, workers.start);
  while ((await outcomes()) === 0) await setTimeout(50);
  const [from, begun] = [await outcomes(), performance.now()];
  let to = from;
  while (performance.now() - begun < WINDOW_MS && to < businesses * due) {
    await setTimeout(250);
    to = await outcomes();
  }
  const seconds = (performance.now() - begun) / 1000;
  const residentMegabytes = Math.max(...running.map(mostHeld));
  await Promise.all(running.map(workers.stop));
  await client.query(`update charges set act_at = null where business_id = any($1) and act_at is not null`, [houses]);
  await client.end();
  report(name, perCharge(seconds, to - from), seconds, { processes, residentMegabytes });
}

/**
 * The same rows written in batches, without any logic: an invoice, its entries and postings, a payment, a receipt, the lines of the
 * timelines, and the charge, two transactions for every 250 as charging makes them.
 */
async function withoutLogic({ admin }: Measured, house: House, rows: number): Promise<void> {
  const client = new pg.Client({ connectionString: admin });
  await client.connect();
  await client.query(
    'create table bench_rows (id uuid primary key, business_id uuid not null, kind text not null, at timestamptz not null, body jsonb not null)',
  );
  await client.query('create index bench_rows_by_business on bench_rows (business_id, kind, at, id)');
  const body = JSON.stringify({ printed: 'x'.repeat(1500) });
  const small = JSON.stringify({ amount: 2200, currency: 'USD', account: 'receivable' });
  const begun = performance.now();
  for (let from = 0; from < rows; from += 250)
    for (const [large, slim] of [
      [1, 8],
      [1, 8],
    ]) {
      await client.query('begin');
      for (const [text, count] of [
        [body, large],
        [small, slim],
      ] as const)
        await client.query(
          `insert into bench_rows select gen_random_uuid(), $1, 'row', now(), $2::jsonb from generate_series(1, $3)`,
          [house.business.id, text, 250 * (count ?? 0)],
        );
      await client.query('commit');
    }
  const seconds = (performance.now() - begun) / 1000;
  await client.query('drop table bench_rows');
  await client.end();
  report('the same rows in batches, without logic', perCharge(seconds, rows), seconds);
}

/** Starts and ends worker processes. */
export type Workers = { readonly start: () => ChildProcess; readonly stop: (worker: ChildProcess) => Promise<void> };

/** Measures charging. @param all how many plans the largest table has */
export async function measureCharging(where: Measured, all: number, workers: Workers): Promise<void> {
  await withoutLogic(where, await foundHouse('Bench rows'), 20_000);
  for (const scene of [
    { name: '10,000 charges due', businesses: 1, due: 10_000, processes: 1 },
    {
      name: '10,000 charges refused, a letter about each',
      businesses: 1,
      due: 10_000,
      card: 'corvid-poor',
      processes: 1,
    },
    {
      name: '10,000 charges refused, no letters',
      businesses: 1,
      due: 10_000,
      card: 'corvid-poor',
      letters: false,
      processes: 1,
    },
    { name: '4 businesses charge side by side', businesses: 4, due: 8_000, processes: 1 },
    { name: '4 businesses charge side by side', businesses: 4, due: 8_000, processes: 2 },
    {
      name: `100,000 charges due among ${all} plans`,
      businesses: 1,
      due: 100_000,
      more: Math.max(0, all - 100_000),
      processes: 1,
    },
  ])
    await inWorkers(where, scene, workers);
}

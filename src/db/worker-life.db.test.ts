import { randomUUID } from 'node:crypto';
import { Logger, run as runWorker } from 'graphile-worker';
import { expect, test } from 'vitest';
import { programContext } from '@/flows/door/program';
import { asSuperuser } from '../../tests/support/database';
import { until } from '../../tests/support/until';
import { foundHouse, sharedWorkshop } from '../../tests/support/workshop';
import { businessById, insertCounter } from './businesses';
import { beat, enqueueJobs, releaseJobsOfTheDead, secondsSinceBeat } from './jobs';
import { listen } from './listen';
import { pool } from './pool';
import { run, sql } from './sql';
import { inBusiness } from './transaction';
import { queuePool } from './worker-life';

const workshop = await sharedWorkshop();
const house = await foundHouse();

const add = (key: string) =>
  inBusiness(programContext(house.business.id), (tx) =>
    enqueueJobs(tx, [
      { task: 'settle-payments', key, payload: { businessId: house.business.id, paymentIds: [randomUUID()] } },
    ]),
  );
const jobs = () =>
  asSuperuser<{ key: string; locked_by: string | null }>(
    workshop.admin,
    'select key, locked_by from graphile_worker._private_jobs order by id',
  );

test('a job of a worker that died is taken over; one of a living worker is left alone', async () => {
  await add('dead');
  await add('alive');
  await asSuperuser(
    workshop.admin,
    `update graphile_worker._private_jobs set locked_at = now() - interval '1 minute', locked_by = 'worker-' || key`,
  );
  await beat(pool(), ['worker-alive']);
  const queue = queuePool(3);
  await releaseJobsOfTheDead(queue, pool(), 12);
  expect((await jobs()).map(({ key, locked_by }) => [key, locked_by])).toEqual([
    ['dead', null],
    ['alive', 'worker-alive'],
  ]);
  const taken: string[] = [];
  const runner = await runWorker({
    pgPool: queue,
    noHandleSignals: true,
    pollInterval: 100,
    taskList: { 'settle-payments': (_, { job }) => void taken.push(job.key ?? '') },
  });
  await until('a job is taken', async () => taken.length > 0);
  await runner.stop();
  await queue.end();
  expect(taken).toEqual(['dead']);
});

test('a job that fails is kept with its reason and tried again later', async () => {
  await add('failing');
  const queue = queuePool(3);
  const runner = await runWorker({
    pgPool: queue,
    noHandleSignals: true,
    pollInterval: 100,
    logger: new Logger(() => () => undefined),
    taskList: {
      'settle-payments': () => {
        throw new Error('the processor is away');
      },
    },
  });
  const failed = () =>
    asSuperuser<{ attempts: number }>(
      workshop.admin,
      `select attempts from graphile_worker._private_jobs where key = 'failing' and last_error is not null`,
    );
  await until('the failure is kept', async () => (await failed()).length > 0);
  await runner.stop();
  await queue.end();
  expect(await failed()).toEqual([{ attempts: 1 }]);
});

test('a job is added with the write that causes it, or not at all; the same key twice is one job', async () => {
  const before = (await jobs()).length;
  await expect(
    inBusiness(programContext(house.business.id), async (tx) => {
      await enqueueJobs(tx, [
        {
          task: 'settle-payments',
          key: 'never',
          payload: { businessId: house.business.id, paymentIds: [randomUUID()] },
        },
      ]);
      throw new Error('no');
    }),
  ).rejects.toThrow('no');
  await add('once');
  await add('once');
  expect((await jobs()).length).toBe(before + 1);
});

test('a change is announced when it is committed, and where nothing was written nobody hears', async () => {
  const heard: string[] = [];
  const line = listen((businessId) => heard.push(businessId));
  const listens = `select 1 from pg_stat_activity where datname = current_database() and query ilike 'listen%'`;
  await until('somebody listens', async () => (await asSuperuser(workshop.admin, listens)).length > 0);
  const scope = programContext(house.business.id);
  await inBusiness(scope, (tx) => businessById(tx));
  await inBusiness(scope, (tx) => run(tx, sql`delete from invoices where id = ${randomUUID()}`));
  await inBusiness(scope, (tx) => insertCounter(tx, 'heard', 1n));
  await inBusiness(scope, (tx) => insertCounter(tx, 'unheard', 1n), false);
  await until('it is heard', async () => heard.length > 0);
  await line.stop();
  expect(heard).toEqual([house.business.id]);
});

test('the last beat is known in seconds', async () => {
  await beat(pool(), ['worker-now']);
  expect(await secondsSinceBeat(pool())).toBeLessThan(30);
});

import { randomUUID } from 'node:crypto';
import { expect, test } from 'vitest';
import { asSuperuser } from '../../../tests/support/database';
import { foundHouse, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { everyMinute } from './due-work';
import { noteFailedJob, noteJobDone, TOLD_FROM, tryStuckAgain } from './stuck-work';
import { todayView } from './today';

const workshop = await sharedWorkshop();
const rows = <Row>(text: string, values: unknown[] = []) => asSuperuser<Row>(workshop.admin, text, values);

test('what fails again and again stands in Today until it is done, or tried again', async () => {
  const house = await foundHouse();
  const other = await foundHouse('Other');
  const { businessId } = house.owner;
  const job = {
    key: 'refund:1',
    task: 'settle-refund',
    payload: { businessId, refundId: randomUUID() },
    givenUp: false,
  };
  const stuck = async (actor = house.owner) =>
    (await todayView(actor)).queue.flatMap((item) => (item.kind === 'stuck' ? [item.job] : []));
  for (let times = 1; times < TOLD_FROM; times++) await noteFailedJob(businessId, job);
  expect(await stuck()).toEqual([]);
  await noteFailedJob(businessId, job);
  expect(await stuck()).toMatchObject([{ key: 'refund:1', failures: TOLD_FROM, givenUp: false }]);
  expect(await stuck(other.owner)).toEqual([]);
  await noteJobDone(businessId, job.key);
  expect(await stuck()).toEqual([]);

  await noteFailedJob(businessId, { ...job, givenUp: true });
  expect(await stuck()).toMatchObject([{ givenUp: true, failures: 1 }]);
  await expect(tryStuckAgain(other.owner, job.key)).rejects.toMatchObject({ code: 'not-found' });
  await expect(tryStuckAgain(house.reader, job.key)).rejects.toMatchObject({ code: 'not-allowed' });
  await tryStuckAgain(house.owner, job.key);
  expect(await stuck()).toEqual([]);
  expect(
    await rows(`select key from graphile_worker._private_jobs where key = $1 and payload->>'businessId' = $2`, [
      job.key,
      businessId,
    ]),
  ).toEqual([{ key: 'refund:1' }]);
  await expect(tryStuckAgain(house.owner, job.key)).rejects.toMatchObject({ code: 'not-found' });
});

test('what was noted of a job that is done is forgotten within the minute, also where nobody said that it is done', async () => {
  const { owner } = await foundHouse();
  const { businessId } = owner;
  const job = { key: 'refund:gone', task: 'settle-refund', payload: { businessId }, givenUp: false };
  const left = { ...job, key: 'refund:open' };
  await rows(
    `select graphile_worker.add_job('settle-refund', $1::json, job_key => 'refund:open', run_at => now() + interval '1 day')`,
    [JSON.stringify(left.payload)],
  );
  for (const one of [job, left, { ...job, key: 'refund:given-up', givenUp: true }])
    await noteFailedJob(businessId, one);
  await everyMinute();
  const noted = await rows<{ key: string }>('select key from stuck_jobs where business_id = $1 order by key', [
    businessId,
  ]);
  expect(noted.map(({ key }) => key)).toEqual(['refund:given-up', 'refund:open']);
});

test('a message that is tried no more counts as one that did not arrive', async () => {
  const house = await foundHouse();
  const { businessId } = house.owner;
  await sentInvoice(house);
  const [message] = await rows<{ id: string }>('select id from messages where business_id = $1', [businessId]);
  const payload = { businessId, messageId: message?.id ?? '' };
  await noteFailedJob(businessId, { key: 'message:1', task: 'hand-over-message', payload, givenUp: true });
  const { queue } = await todayView(house.owner);
  expect(queue.map(({ kind }) => kind)).toContain('undelivered');
  expect(queue.map(({ kind }) => kind)).not.toContain('stuck');
});

test('what failed twenty times in a row is tried once an hour only, beside everything else that is due', async () => {
  const house = await foundHouse();
  const { businessId } = house.owner;
  const due = () =>
    rows<{ key: string }>(
      `select key from graphile_worker._private_jobs where key like 'due:%' and payload->>'businessId' = $1`,
      [businessId],
    );
  await everyMinute();
  const key = `due:closing:${businessId}`;
  expect(await due()).toEqual([{ key }]);
  await rows('delete from graphile_worker._private_jobs');
  const job = { key, task: 'due-work', payload: { businessId, concern: 'closing' }, givenUp: false };
  for (let times = 0; times < 20; times++) await noteFailedJob(businessId, job);
  await everyMinute();
  expect(await due()).toEqual([]);
  await rows(`update stuck_jobs set last_at = now() - interval '61 minutes'`);
  await everyMinute();
  expect(await due()).toEqual([{ key }]);
});

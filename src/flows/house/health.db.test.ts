import { createServer } from 'node:http';
import { expect, test } from 'vitest';
import { beat } from '@/db/jobs';
import { pool } from '@/db/pool';
import { hasRoom } from '@/outside/disk';
import { asSuperuser } from '../../../tests/support/database';
import { rudeMail, rudeService } from '../../../tests/support/manners';
import { sharedWorkshop } from '../../../tests/support/workshop';
import { forgetHealth, type Health, health } from './health';

/** A processor that is well and has its own idea of the time. */
let processorTime = new Date();
const processor = createServer((_request, response) => {
  response.setHeader('content-type', 'application/json');
  response.end(JSON.stringify({ ok: true, now: processorTime.toISOString() }));
});
await new Promise<void>((resolve) => processor.listen(0, '127.0.0.1', resolve));
const address = processor.address();
const own = `http://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`;

let target = { cards: own, smtpPort: 0 };
const cards = await rudeService(() => target.cards, 10_000);
const mail = await rudeMail(() => target.smtpPort);
const workshop = await sharedWorkshop({
  CARDS_URL: `http://127.0.0.1:${cards.port}/cards`,
  SMTP_URL: `smtp://127.0.0.1:${mail.port}`,
});
target = { cards: workshop.standIns, smtpPort: workshop.smtpPort };

const WELL: Health = { database: true, worker: true, cards: true, mail: true, disk: true, queue: true, clock: true };
async function now(): Promise<Health> {
  await beat(pool(), ['one']);
  forgetHealth();
  return health();
}

test('all is well, where it is', async () => {
  expect(await now()).toEqual(WELL);
});

test.each(['error-before', 'turned-away', 'redirects', 'page-instead', 'empty-answer', 'wrong-types', 'slow'] as const)(
  'a processor that answers with %s is not well',
  async (manner) => {
    cards.behave(() => manner);
    expect(await now()).toMatchObject({ cards: false, mail: true, database: true });
    cards.behave(() => null);
    expect(await now()).toEqual(WELL);
  },
);

test.each(['never-greets', 'breaks-at-once', 'busy'] as const)('a mail server that %s is not well', async (manner) => {
  mail.behave(() => manner);
  expect(await now()).toMatchObject({ mail: false, cards: true });
  mail.behave(() => null);
});

test('a processor whose clock stands apart is told', async () => {
  target = { ...target, cards: own };
  processorTime = new Date(Date.now() + 3_600_000);
  expect(await now()).toEqual({ ...WELL, clock: false });
  target = { ...target, cards: workshop.standIns };
});

test('a queue in which something waits that could run is told, one that waits for its time is not', async () => {
  const add = (late: string) =>
    asSuperuser(workshop.admin, `select graphile_worker.add_job('minute', run_at => now() + $1::interval)`, [late]);
  await add('1 hour');
  expect((await now()).queue).toBe(true);
  await add('-10 minutes');
  expect(await now()).toEqual({ ...WELL, queue: false });
  await asSuperuser(workshop.admin, 'delete from graphile_worker._private_jobs');
});

test('a worker that is silent, and a database that does not answer, are told', async () => {
  await asSuperuser(workshop.admin, `update worker_beats set beaten_at = now() - interval '1 minute'`);
  forgetHealth();
  expect((await health()).worker).toBe(false);
  await asSuperuser(workshop.admin, `alter function waiting_jobs() rename to not_there`);
  expect((await now()).queue).toBe(false);
  await asSuperuser(workshop.admin, `alter function not_there() rename to waiting_jobs`);
});

test('a place without room is told', async () => {
  expect(await hasRoom(['/proc'])).toBe(false);
  expect(await hasRoom()).toBe(true);
});

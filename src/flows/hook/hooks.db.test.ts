import { createHmac } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeEach, expect, test } from 'vitest';
import { ALL_HOOK_KINDS } from '@/core/hook/events';
import { pauseAfter } from '@/core/hook/retry';
import { refundPayment } from '@/flows/payment/refund-payment';
import { takePayment } from '@/flows/payment/take-payment';
import { asSuperuser } from '../../../tests/support/database';
import { handedOver } from '../../../tests/support/house-mail';
import { cardToken, foundHouse, type House, sentInvoice, sharedWorkshop } from '../../../tests/support/workshop';
import { addHook, changeHook, changeSecret, hooksView, removeHook, tellAgain, tellTest } from './hooks';
import { tellProgram } from './tell-program';

const workshop = await sharedWorkshop({ HOOKS_LOCAL: 'yes', HOOKS_TIMEOUT_MS: '400' });

type Heard = { readonly headers: IncomingMessage['headers']; readonly body: string };
let heard: Heard[] = [];
let answer: (request: IncomingMessage, response: ServerResponse) => void = (_, response) => response.end('ok');

/** A program that is told, and answers as a test wants. */
const program = createServer((request, response) => {
  let body = '';
  request.on('data', (part) => {
    body += part;
  });
  request.on('end', () => {
    heard.push({ headers: request.headers, body });
    answer(request, response);
  });
});
await new Promise<void>((resolve) => program.listen(0, '127.0.0.1', resolve));
const url = `http://127.0.0.1:${(program.address() as AddressInfo).port}/events`;
afterAll(() => {
  program.closeAllConnections();
  program.close();
});
beforeEach(() => {
  heard = [];
  answer = (_, response) => response.end('ok');
});

const all = { url, kinds: ALL_HOOK_KINDS };
const latest = async (house: House) => (await hooksView(house.owner))[0]?.deliveries ?? [];
/** Does the jobs that tell programs, as the worker would by now, and takes them from the queue. */
async function tell(house: House): Promise<number> {
  const jobs = await asSuperuser<{ id: string; delivery: string; wait: number }>(
    workshop.admin,
    `delete from graphile_worker._private_jobs job using graphile_worker._private_tasks task
     where task.id = job.task_id and task.identifier = 'tell-program' and job.payload->>'businessId' = $1
     returning job.id, job.payload->>'deliveryId' as delivery, extract(epoch from run_at - now())::float8 as wait`,
    [house.business.id],
  );
  for (const { delivery } of jobs) await tellProgram(house.business.id, delivery);
  return Math.max(0, ...jobs.map(({ wait }) => wait));
}
async function paid(house: House): Promise<string> {
  const { link } = await sentInvoice(house);
  const token = await cardToken(workshop.standIns, 'corvid-good');
  await takePayment(link, { attemptKey: crypto.randomUUID(), cardToken: token, amountMinor: 11_000n }, 'a');
  const [row] = await asSuperuser<{ id: string }>(workshop.admin, 'select id from payments where business_id = $1', [
    house.business.id,
  ]);
  return row?.id ?? '';
}

test('what happens is told, signed over time and body, with ids to find it again; what was not asked for is not', async () => {
  const house = await foundHouse();
  const { secret } = await addHook(house.owner, { url, kinds: ['payment-taken', 'refund-made'] });
  const paymentId = await paid(house);
  await refundPayment(house.owner, paymentId, {
    wish: { by: 'sum', amountMinor: 1000n },
    method: 'card',
    reference: '',
    owedAgain: false,
    reason: 'Too much',
    aside: {},
    requestKey: crypto.randomUUID(),
  });
  await tell(house);
  expect(heard).toHaveLength(2);
  for (const { headers, body } of heard) {
    const wanted = createHmac('sha256', secret).update(`${headers['x-event-time']}.${body}`).digest('hex');
    expect(headers['x-event-signature']).toBe(wanted);
    expect(JSON.parse(body)).toMatchObject({ id: headers['x-event-id'], business: house.business.id, currency: 'USD' });
  }
  const told = heard.map(({ body }) => JSON.parse(body));
  expect(told.find(({ kind }) => kind === 'payment-taken')).toMatchObject({
    invoice: { id: expect.any(String), number: expect.any(String) },
    details: { amount: 11_000 },
  });
  expect(told.find(({ kind }) => kind === 'refund-made')).toMatchObject({ details: { amount: 1000 } });
  expect((await latest(house)).map(({ state, outcome }) => `${state} ${outcome}`)).toEqual(['done 200', 'done 200']);
  // Neither secret stands in the database.
  const [row] = await asSuperuser<{ secret: Buffer }>(
    workshop.admin,
    'select secret from hooks where business_id = $1',
    [house.business.id],
  );
  expect(row?.secret.includes(secret)).toBe(false);
});

test('one that fails, hangs, redirects or lies is told again with growing pauses, the same text under the same id, and given up after three days', async () => {
  const house = await foundHouse();
  await addHook(house.owner, { url, kinds: ['invoice-sent'] });
  await sentInvoice(house);
  const manners: ((request: IncomingMessage, response: ServerResponse) => void)[] = [
    (_, response) => response.writeHead(500).end('no'),
    () => undefined,
    (_, response) => response.writeHead(302, { location: 'http://169.254.169.254/latest' }).end(),
    (request) => request.socket.destroy(),
    // Says that it is fine, and never ends saying so.
    (_, response) => response.writeHead(503).write('x'.repeat(500_000)),
    (request) => request.socket.end('HTTP/1.1 200 OK\r\nnonsense'),
  ];
  let last = 0;
  for (let tries = 1; pauseAfter(tries - 1) !== null || tries === 1; tries++) {
    answer = manners[(tries - 1) % manners.length] ?? answer;
    const wait = await tell(house);
    expect(wait).toBeGreaterThanOrEqual(last - 5);
    last = wait;
    expect((await latest(house))[0]).toMatchObject({
      tries,
      state: pauseAfter(tries) === null ? 'given-up' : 'waiting',
    });
  }
  expect(new Set(heard.map(({ body }) => body)).size).toBe(1);
  expect(new Set(heard.map(({ headers }) => headers['x-event-id'])).size).toBe(1);
  expect(last).toBeGreaterThan(22 * 3600);
  expect(
    (await handedOver(workshop, house.business.id, `owner-${house.business.id.slice(0, 8)}@sallow.example`))?.subject,
  ).toBe('A program is not reached');
  expect((await hooksView(house.owner))[0]?.hook.isSilent).toBe(true);
  // By hand it is told once more; what arrives ends the silence.
  const [delivery] = await latest(house);
  answer = (_, response) => response.writeHead(204).end();
  await tellAgain(house.owner, delivery?.id ?? '');
  await tell(house);
  const [{ hook, deliveries } = { hook: null, deliveries: [] }] = await hooksView(house.owner);
  expect(hook?.isSilent).toBe(false);
  expect(deliveries[0]).toMatchObject({ state: 'done', outcome: '204' });
});

test('a secret is changed without a gap: for a day both are good', async () => {
  const house = await foundHouse();
  const { id, secret } = await addHook(house.owner, all);
  const fresh = await changeSecret(house.owner, id);
  expect(fresh).not.toBe(secret);
  await tellTest(house.owner, id);
  await tell(house);
  const signatures = () => String(heard.at(-1)?.headers['x-event-signature']).split(', ');
  const by = (one: string) =>
    createHmac('sha256', one)
      .update(`${heard.at(-1)?.headers['x-event-time']}.${heard.at(-1)?.body}`)
      .digest('hex');
  expect(signatures()).toEqual([by(fresh), by(secret)]);
  await asSuperuser(workshop.admin, `update hooks set earlier_until = now() - interval '1 hour' where id = $1`, [id]);
  await tellTest(house.owner, id);
  await tell(house);
  expect(signatures()).toEqual([by(fresh)]);
  expect(JSON.parse(heard.at(-1)?.body ?? '')).toMatchObject({ kind: 'test' });
});

test('one that is switched off or removed hears nothing; others hear the same event under one id; twenty at once tell once', async () => {
  const house = await foundHouse();
  const first = await addHook(house.owner, all);
  const second = await addHook(house.owner, all);
  const third = await addHook(house.owner, all);
  await changeHook(house.owner, third.id, { ...all, isOn: false });
  await sentInvoice(house);
  await removeHook(house.owner, second.id);
  await tell(house);
  expect(heard).toHaveLength(1);
  await sentInvoice(house);
  const open = (await hooksView(house.owner)).map(({ hook }) => hook.id);
  expect(open).toEqual([first.id, third.id]);
  const [waiting] = await latest(house);
  await Promise.all(Array.from({ length: 20 }, () => tellProgram(house.business.id, waiting?.id ?? '')));
  expect((await latest(house))[0]).toMatchObject({ state: 'done', tries: 1 });
  await expect(removeHook(house.owner, second.id)).rejects.toMatchObject({ code: 'not-found' });
});

test('addresses are looked at when they are given and each time something is sent; rights and businesses hold', async () => {
  const [house, other] = [await foundHouse(), await foundHouse()];
  const { id } = await addHook(house.owner, all);
  await expect(addHook(house.owner, { ...all, url: 'ftp://x' })).rejects.toMatchObject({ code: 'hook-address' });
  await expect(addHook(house.clerk, all)).rejects.toMatchObject({ code: 'not-allowed' });
  await expect(changeSecret(other.owner, id)).rejects.toMatchObject({ code: 'not-found' });
  await expect(tellTest(other.owner, id)).rejects.toMatchObject({ code: 'not-found' });
  process.env.HOOKS_LOCAL = 'no';
  await expect(addHook(house.owner, all)).rejects.toMatchObject({ code: 'hook-address' });
  // It was taken once; its name leads into the inner network now.
  await tellTest(house.owner, id);
  await tell(house);
  process.env.HOOKS_LOCAL = 'yes';
  expect((await latest(house))[0]).toMatchObject({ state: 'waiting', outcome: 'inner-address' });
  expect(heard).toEqual([]);
  for (let more = 0; more < 9; more++) await addHook(house.owner, all);
  await expect(addHook(house.owner, all)).rejects.toMatchObject({ code: 'hooks-enough' });
});

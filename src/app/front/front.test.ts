import { createServer, type Server, request as send } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { refusalWords } from '@/core/refusal/refusal';
import { Front } from './front';

let server: Server;
let web: string;
let passed: string[];
let now: number;
/** What the framework would answer. */
let status: number;

beforeEach(async () => {
  passed = [];
  now = 0;
  status = 200;
  const front = new Front(
    (request, response) => {
      passed.push(request.url ?? '');
      response.writeHead(status).end('{}');
    },
    () => now,
  );
  server = createServer((request, response) => front.answer(request, response));
  server.on('checkContinue', (request, response) => front.answer(request, response, true));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  web = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterEach(() => {
  server.closeAllConnections();
  server.close();
});

const post = (path: string, body: BodyInit, headers: Record<string, string> = {}) =>
  fetch(`${web}${path}`, { method: 'POST', body, headers, duplex: 'half' } as RequestInit);

test('what announces more than its address takes is answered in words, unread, whoever it is from', async () => {
  const answer = await post('/api/checkout/garden/quote', new Uint8Array(9_000_000));
  expect(answer.status).toBe(413);
  expect(await answer.json()).toEqual({ ok: false, code: 'too-much', words: refusalWords('too-much'), fields: [] });
  expect(answer.headers.get('cache-control')).toBe('private, no-store');
  const file = await post('/api/files?purpose=logo&name=x', new Uint8Array(11_000_000));
  expect(await file.json()).toMatchObject({ code: 'file-too-large' });
  expect(passed).toEqual([]);
  await post('/api/files?purpose=logo&name=x', new Uint8Array(9_000_000));
  expect(passed).toEqual(['/api/files?purpose=logo&name=x']);
});

test('a body without a length is not taken, and an address that cannot be read leads nowhere', async () => {
  const stream = new Blob(['{}']).stream();
  expect((await post('/api/sign-in', stream)).status).toBe(411);
  for (const path of ['/i/%ff', '/i/%00', '/api/pay/x/status?attempt=%00', `/${'x'.repeat(8500)}`])
    expect((await fetch(`${web}${path}`)).status, path).toBe(400);
  expect(passed).toEqual([]);
});

test('who asks before sending is told before sending', async () => {
  const told = await new Promise<number>((resolve) => {
    const asking = send(`${web}/api/sign-in`, {
      method: 'POST',
      headers: { expect: '100-continue', 'content-length': '9000000' },
    });
    asking.on('continue', () => resolve(100));
    asking.on('response', ({ statusCode }) => resolve(statusCode ?? 0));
    asking.on('error', () => resolve(-1));
    asking.flushHeaders();
  });
  expect(told).toBe(413);
});

test('who sends nothing but nonsense is turned away for a while, still sees pages, and nobody else is', async () => {
  const from = (address: string) => ({ 'x-forwarded-for': address });
  status = 400;
  const answers: number[] = [];
  for (let at = 0; at < 25; at++) {
    const answer = await post('/api/sign-in', '[]', from('203.0.113.9'));
    await answer.text();
    answers.push(answer.status);
  }
  expect(answers).toEqual([...Array(20).fill(400), ...Array(5).fill(429)]);
  expect(passed.length).toBe(20);
  status = 200;
  const turned = await post('/api/sign-in', '{}', from('x, 203.0.113.9'));
  expect(turned.status).toBe(429);
  expect(await turned.json()).toMatchObject({ code: 'much-nonsense', words: refusalWords('much-nonsense') });
  expect((await fetch(`${web}/i/x`, { headers: from('203.0.113.9') })).status).toBe(200);
  expect((await post('/api/sign-in', '{}', from('203.0.113.10'))).status).toBe(200);
  now += Number(turned.headers.get('retry-after')) * 1000 + 1000;
  expect((await post('/api/sign-in', '{}', from('203.0.113.9'))).status).toBe(200);
});

test('a person whose entries are refused by a rule is never turned away', async () => {
  for (const said of [409, 403, 404, 401]) {
    status = said;
    for (let at = 0; at < 30; at++) {
      const answer = await post('/api/invoices', '{}', { 'x-forwarded-for': '203.0.113.5' });
      await answer.text();
      expect(answer.status).toBe(said);
    }
  }
});

import { NextRequest } from 'next/server';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { proxy } from './proxy';

const before = { ...process.env };
beforeEach(() => {
  Object.assign(process.env, { PUBLIC_URL: 'https://pay.example', CARDS_URL: 'https://cards.example/x' });
});
afterEach(() => {
  process.env = { ...before };
});

const through = (path: string, init: { method?: string; headers?: Record<string, string> } = {}) =>
  proxy(new NextRequest(`https://pay.example${path}`, init));

test('behind https every answer says so; on http none does', async () => {
  for (const path of ['/today', '/api/customers', '/p/abc', '/i/%ff']) {
    expect((await through(path)).headers.get('strict-transport-security'), path).toBe('max-age=31536000');
  }
  process.env.PUBLIC_URL = 'http://localhost:3000';
  expect((await through('/today')).headers.get('strict-transport-security')).toBeNull();
});

test('pages get a policy with a nonce of their own; handlers keep the one that they say themselves', async () => {
  const [one, other] = [await through('/today'), await through('/today')];
  const policy = one.headers.get('content-security-policy') ?? '';
  expect(policy).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
  expect(policy).toContain("frame-ancestors 'none'");
  expect(policy).toContain("frame-src 'self' https://cards.example;");
  expect(other.headers.get('content-security-policy')).not.toBe(policy);
  for (const path of ['/files/invoices/x', '/api/customers', '/served/x', '/p/x', '/i/x/invoice.pdf'])
    expect((await through(path)).headers.get('content-security-policy'), path).toBeNull();
});

test('a change from another site is refused in words', async () => {
  const send = (origin?: string) => through('/api/customers', { method: 'POST', headers: origin ? { origin } : {} });
  const foreign = await send('https://evil.example');
  expect(foreign.status).toBe(403);
  expect(await foreign.json()).toMatchObject({ ok: false, words: expect.stringContaining('https://pay.example') });
  expect((await send()).status).toBe(403);
  expect((await send('https://pay.example')).status).toBe(200);
  // Signed by the processor instead.
  expect((await through('/api/hooks/cards', { method: 'POST' })).status).toBe(200);
});

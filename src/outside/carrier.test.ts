/** The carrier's client against a carrier that says anything at all: nothing is thrown, nothing is taken over that is not whole and bounded. */
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import { NO_ADDRESS } from '@/core/place/address';
import { httpCarrier } from './carrier';

let server: Server;
let answer: { status: number; body: string } = { status: 200, body: '' };
let carrier: ReturnType<typeof httpCarrier>;
beforeAll(async () => {
  server = createServer((request, response) => {
    request.resume();
    response.writeHead(answer.status, { 'content-type': 'application/json' }).end(answer.body);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  carrier = httpCarrier(`http://127.0.0.1:${(server.address() as AddressInfo).port}`, 'key');
});
afterAll(() => new Promise((resolve) => server.close(resolve)));

const ON = calendarDate('2026-11-30');
const DOOR = { ...NO_ADDRESS, lines: ['1 Mill Rise'], city: 'Cresset', country: 'US' };
const SPEC = {
  ...{ name: 'Ida', from: DOOR, to: DOOR, grams: 100, lengthMm: 100, widthMm: 100, heightMm: 20, insuredMinor: 0 },
  ...{ signature: false, mailOn: ON },
};
const CLAIM = { key: 'k', number: 'TW1', why: 'lost', minor: 100 } as const;

/** Everything that is asked of it, by name. */
const ASKED: Readonly<Record<string, () => Promise<unknown>>> = {
  rates: () => carrier.rates('USD', [SPEC, SPEC]),
  checkAddresses: () => carrier.checkAddresses([DOOR, DOOR]),
  buy: () => carrier.buy('a', 'USD', [{ key: 'k', service: 'light', parcel: SPEC }]),
  known: () => carrier.known('a', ['k', 'l']),
  giveBack: () => carrier.giveBack('a', 'TW1'),
  redate: () => carrier.redate('a', 'TW1', ON),
  topUp: () => carrier.topUp('a', 'k', 'USD', 100),
  balance: () => carrier.balance('a'),
  claim: () => carrier.claim('a', CLAIM),
  pickUp: () => carrier.pickUp('a', { key: 'k', on: ON, parcels: 1, grams: 1, from: DOOR }),
  scans: () => carrier.scans('a', ['TW1', 'TW2']),
  statement: () => carrier.statement('a', ON),
};

/** The longest text, and whether every number is a whole one of usual size. */
function measured(value: unknown): { longest: number; isSane: boolean } {
  if (typeof value === 'string')
    return { longest: value.length, isSane: !value.includes('\u0000') || value.length < 5000 };
  if (typeof value === 'number') return { longest: 0, isSane: Number.isSafeInteger(value) };
  if (value instanceof Date) return { longest: 0, isSane: true };
  if (Buffer.isBuffer(value)) return { longest: 0, isSane: true };
  const parts = value && typeof value === 'object' ? Object.values(value).map(measured) : [];
  return { longest: Math.max(0, ...parts.map(({ longest }) => longest)), isSane: parts.every(({ isSane }) => isSane) };
}

const NAMES = [
  ...[
    'answers',
    'outcomes',
    'outcome',
    'parcels',
    'scans',
    'ahead',
    'proof',
    'rates',
    'refused',
    'says',
    'address',
    'file',
  ],
  ...['minor', 'currency', 'words', 'number', 'promisedOn', 'rateMinor', 'insuranceMinor', 'signatureMinor', 'service'],
  ...[
    'name',
    'at',
    'scan',
    'place',
    'strokes',
    'lines',
    'city',
    'region',
    'postalCode',
    'customsForm',
    'voided',
    'why',
  ],
];
const value = fc.letrec((tie) => ({
  any: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    fc.constantFrom(
      null,
      true,
      -1,
      1e308,
      3,
      'paid',
      'voided',
      '2026-12-01',
      '2026-12-01T10:00:00Z',
      'delivered',
      'cn23',
    ),
    fc.string({ maxLength: 20 }),
    fc.constant('x'.repeat(20_000)),
    fc.array(tie('any'), { maxLength: 3 }),
    fc.dictionary(fc.constantFrom(...NAMES), tie('any'), { maxKeys: 8 }),
  ),
})).any;

test.each(Object.keys(ASKED))('%s: whatever it answers', async (name) => {
  await fc.assert(
    fc.asyncProperty(value, fc.constantFrom(200, 200, 200, 404, 500), async (said, status) => {
      answer = { status, body: JSON.stringify(said) };
      const { longest, isSane } = measured(await ASKED[name]?.());
      expect(longest).toBeLessThanOrEqual(4000);
      expect(isSane).toBe(true);
    }),
    { numRuns: 120 },
  );
});

test.each(Object.keys(ASKED))('%s: what is no JSON, or half of it, is no answer', async (name) => {
  for (const body of ['', '<html>', '{"answers": [', 'null', '[]', '7', '{"__proto__":{"minor":1}}']) {
    answer = { status: 200, body };
    const got = await ASKED[name]?.();
    if (name === 'pickUp') expect(got === null || (got as { number: string }).number === '').toBe(true);
    else expect(got, body).toBeNull();
  }
});

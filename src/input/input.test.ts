import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import { describe, expect, test } from 'vitest';
import { newCustomer } from '@/core/customer/customer';
import { sendBy } from '@/core/invoice/send-with';
import { completePaper } from '@/core/paper/paper';
import { NO_ADDRESS } from '@/core/place/address';
import { CustomerInput } from './customer-input';
import { InvoicePageInput } from './list-input';
import { DraftInput, SendInput } from './paper-input';
import { PayInput } from './pay-input';
import { SignInInput } from './people-input';

const RULES = { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true };
async function troubles<T extends object>(shape: new () => T, given: object): Promise<string[]> {
  const walk = (errors: Awaited<ReturnType<typeof validate>>, path = ''): string[] =>
    errors.flatMap((error) => [
      ...(error.constraints ? [`${path}${error.property}`] : []),
      ...walk(error.children ?? [], `${path}${error.property}.`),
    ]);
  return walk(await validate(plainToInstance(shape, given), RULES)).sort();
}

const line = (change: object = {}) => ({
  id: crypto.randomUUID(),
  unit: 'hour' as const,
  what: 'x',
  quantity: '1',
  price: '2',
  discount: '',
  taxes: [],
  ...change,
});
const draft = (change: object = {}) => ({ revision: 0, paper: { ...completePaper({ lines: [line()] }), ...change } });

describe('a paper at the door', () => {
  test('is let in as typed, right or not', async () => {
    expect(await troubles(DraftInput, draft())).toEqual([]);
    expect(
      await troubles(DraftInput, draft({ lines: [line({ quantity: 'two', price: '' })], discount: 'half' })),
    ).toEqual([]);
    expect(await troubles(DraftInput, draft({ lines: Array.from({ length: 500 }, () => line()) }))).toEqual([]);
  });

  test.each<[string, object, string]>([
    ['501 lines', { lines: Array.from({ length: 501 }, () => line()) }, 'paper.lines'],
    ['a line that is no object', { lines: ['x'] }, 'paper.lines'],
    ['a line of another unit', { lines: [line({ unit: 'bottle' })] }, 'paper.lines.0.unit'],
    ['a field that nobody asked for', { lines: [line({ net: 5 })] }, 'paper.lines.0.net'],
    ['a number where text belongs', { lines: [line({ quantity: 2 })] }, 'paper.lines.0.quantity'],
    ['a text without end', { note: 'x'.repeat(4001) }, 'paper.note'],
    ['a customer that is no id', { customerId: '1 or 1=1' }, 'paper.customerId'],
    ['days without end', { due: { kind: 'days', days: 9999 } }, 'paper.due.days'],
    ['days that are no number', { due: { kind: 'days', days: '14' } }, 'paper.due.days'],
    ['no due choice', { due: undefined }, 'paper.due'],
    ['an empty list for an object', { due: [] }, 'paper.due'],
  ])('%s is turned away by its path', async (_, change, path) => {
    expect((await troubles(DraftInput, draft(change))).some((found) => found.startsWith(path))).toBe(true);
  });

  test('a paper that is missing, or a list, is turned away', async () => {
    expect(await troubles(DraftInput, { revision: 0 })).toContain('paper');
    expect(await troubles(DraftInput, { revision: 0, paper: [] })).toContain('paper');
    expect(await troubles(DraftInput, { revision: '0', paper: draft().paper })).toContain('revision');
  });
});

describe('a payment at the door', () => {
  const good = { attemptKey: crypto.randomUUID(), cardToken: `tok_${'a'.repeat(24)}`, amountMinor: 100, work: {} };
  test('needs a token, an amount and a key of its own', async () => {
    expect(await troubles(PayInput, good)).toEqual([]);
    expect(await troubles(PayInput, {})).toEqual(['amountMinor', 'attemptKey', 'cardToken', 'work']);
  });
  test.each([
    ['cardToken', '9071000000220819'],
    ['cardToken', `tok_${'a'.repeat(24)} 9071000000220819`],
    ['amountMinor', 0],
    ['amountMinor', -1],
    ['amountMinor', 0.5],
    ['amountMinor', Number.MAX_SAFE_INTEGER + 1],
    ['attemptKey', ['x']],
  ])('%s %s is turned away', async (field, value) =>
    expect(await troubles(PayInput, { ...good, [field]: value })).toEqual([field]),
  );
});

test('a customer needs a name; the address may be empty, but not half of one', async () => {
  const customer = (change: object) => ({ ...newCustomer('Vane'), ...change });
  expect(await troubles(CustomerInput, customer({}))).toEqual([]);
  expect(await troubles(CustomerInput, customer({ name: '   ' }))).toEqual(['name']);
  for (const email of ['a@b', 'a@b.example\r\nBcc: c@d.example', 'Vane <a@b.example>', 'a b@c.example']) {
    expect(await troubles(CustomerInput, customer({ email })), email).toEqual(['email']);
    expect(await troubles(CustomerInput, customer({ copies: [email] })), email).toEqual(['copies']);
  }
  expect(await troubles(CustomerInput, customer({ billing: { ...NO_ADDRESS, lines: [1] } }))).toEqual([
    'billing.lines',
  ]);
  expect(await troubles(CustomerInput, customer({ billing: [] }))).toContain('billing');
  expect(await troubles(CustomerInput, customer({ language: 'xx', currency: 'euro' }))).toEqual([
    'currency',
    'language',
  ]);
});

test('choices are from their list, dates and ids are what they say', async () => {
  expect(await troubles(SendInput, { revision: 1, how: { ...sendBy('mail'), way: 'pigeon' } })).toEqual(['how.way']);
  expect(
    await troubles(SendInput, { revision: 1, how: sendBy('mail', { to: ['a@b.example', 'a@b\r\nBcc: x'] }) }),
  ).toEqual(['how.to']);
  expect(await troubles(SignInInput, { email: { $gt: '' }, password: '' })).toEqual(['email', 'password']);
  expect(await troubles(InvoicePageInput, { part: 'all', key: 'now', id: 'x' })).toEqual(['id', 'key', 'part']);
  expect(await troubles(InvoicePageInput, { part: 'open', key: '2026-11-03', id: crypto.randomUUID() })).toEqual([]);
});

import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { CalendarDate } from '../../dates/calendar-date';
import { referenceOfNumber } from '../reference';
import { addingUp } from './adding-up';
import { matcher } from './match';
import { nameLikeness, nameWords } from './names';
import { numbersIn } from './numbers';
import type { MatchLine, OpenThings } from './things';

const DAY = '2027-03-02' as CalendarDate;
const NOTHING: OpenThings = { invoices: [], payouts: [], refunds: [], payments: [], rules: [], before: [], checks: [] };
const line = (amount: bigint, more: Partial<MatchLine> = {}): MatchLine => ({
  id: 'line',
  day: DAY,
  amount,
  text: '',
  name: '',
  otherAccount: '',
  reference: '',
  endToEnd: '',
  ...more,
});
const invoice = (number: string, due: bigint, customer = 'Harrow Street Quartet') => ({
  id: `invoice ${number}`,
  number,
  customerId: customer,
  customer,
  due,
  dueOn: DAY,
});
const INVOICES = [
  invoice('1200', 39_181n),
  invoice('1226', 21_000n),
  invoice('1229', 40_110n, 'Ingrid Fallowell'),
  invoice('1244', 10_392n, 'Calder Nwosu'),
  invoice('2027-0007', 5_000n, 'Odile Brackenbury'),
];
const propose = matcher({ ...NOTHING, invoices: INVOICES });
const best = (of: MatchLine) => propose(of)[0];

describe('an invoice', () => {
  test('is sure by its reference and sum, also where the reference is broken by blanks in the text', () => {
    const reference = referenceOfNumber('1229');
    expect(best(line(40_110n, { reference }))).toMatchObject({ title: 'Invoice 1229', sure: 'sure', rest: 0n });
    const spaced = `THANKS ${reference.replace(/(.{4})/g, '$1 ')} BYE`;
    expect(best(line(40_110n, { text: spaced, name: 'SOMEBODY ELSE' }))).toMatchObject({ sure: 'sure' });
    expect(best(line(30_000n, { reference }))).toMatchObject({ sure: 'likely', rest: -10_110n });
  });

  test('is sure by number, sum and a name that does not speak against it', () => {
    expect(best(line(40_110n, { text: 'INV 1229', name: 'I FALLOWELL' }))).toMatchObject({ sure: 'sure' });
    expect(best(line(40_110n, { text: 'Invoice no.1229' }))).toMatchObject({ sure: 'sure' });
    expect(best(line(40_110n, { text: 'INV 1229', name: 'Quentin Marsh' }))).toMatchObject({ sure: 'likely' });
    expect(best(line(5_000n, { text: 'Rechnung 2027/0007' }))).toMatchObject({
      title: 'Invoice 2027-0007',
      sure: 'sure',
    });
  });

  test('two in one sum are put together; more than they come to is no longer sure, and is said', () => {
    const text = 'HARROW STR QT RE INV 1200 / 1226 LESS DISC';
    expect(best(line(60_181n, { text, name: 'Harrow Str Qt' }))).toMatchObject({
      title: '2 invoices',
      sure: 'sure',
      parts: [{ minor: 39_181n }, { minor: 21_000n }],
    });
    const over = best(line(62_000n, { text, name: 'Harrow Str Qt' }));
    expect(over).toMatchObject({ title: '2 invoices', sure: 'likely', rest: 1_819n });
    expect(over?.facts.map(({ fact, agrees }) => [fact, agrees])).toEqual([
      ['payer', 'like'],
      ['number', 'equal'],
      ['number', 'equal'],
      ['sum', 'no'],
    ]);
  });

  test('of a payer without any number is likely by the sum, alone or together; a sum alone could be anybody’s', () => {
    expect(best(line(10_392n, { name: 'NWOSU CALDER' }))).toMatchObject({ title: 'Invoice 1244', sure: 'likely' });
    expect(best(line(60_181n, { name: 'Harrow Street Quartet' }))).toMatchObject({
      title: '2 invoices',
      sure: 'likely',
    });
    expect(best(line(10_392n))).toMatchObject({ sure: 'could' });
    expect(best(line(99_999n, { name: 'Nobody Known', text: 'hello' }))).toBeUndefined();
  });

  test('that two lines name equally is sure of neither', () => {
    const twins = matcher({ ...NOTHING, invoices: [invoice('77701', 500n, 'A One'), invoice('77702', 500n, 'B Two')] });
    const found = twins(line(500n, { text: '77701 77702' }));
    expect(found.every(({ sure }) => sure !== 'sure')).toBe(true);
  });
});

test('a payout, a refund and a small sum are known by their references; a sum of a payout with another sum is none', () => {
  const payouts = [{ id: 'p', number: 41, amount: 157_028n }];
  const refunds = [
    { id: '5f0d6c1e-7a44-4f7e-9d53-0b1d5a2f7c01', amount: 4_200n, payee: 'Ilse Varga', about: '1201' },
    { id: '5f0d6c1e-7a44-4f7e-9d53-0b1d5a2f7c02', amount: 900n, payee: 'Ilse Varga', about: '1202' },
  ];
  const all = matcher({ ...NOTHING, payouts, refunds, checks: ['ABC1'] });
  const reference = referenceOfNumber('PO41');
  expect(all(line(157_028n, { reference }))[0]).toMatchObject({ title: 'Payout 41', sure: 'sure' });
  expect(all(line(157_000n, { reference }))).toEqual([]);
  const endToEnd = '5f0d6c1e7a444f7e9d530b1d5a2f7c01';
  expect(all(line(-4_200n, { endToEnd }))[0]).toMatchObject({ title: 'Refund to Ilse Varga', sure: 'sure' });
  expect(all(line(-900n, { name: 'VARGA I' }))[0]).toMatchObject({ sure: 'likely' });
  expect(all(line(37n, { endToEnd: 'a.b-c.1' }))[0]).toMatchObject({
    parts: [{ kind: 'aside', id: 'check' }],
    sure: 'sure',
  });
});

test('what is always so is sure, by account before name; the bank’s own charge is likely', () => {
  const rule = {
    id: 'r',
    words: '',
    account: 'DE1',
    isIn: false,
    customerId: null,
    aside: 'other' as const,
    note: 'Strings',
  };
  const rules = [rule, { ...rule, id: 's', words: 'terminal rent nov', account: '', note: 'Terminal' }];
  const all = matcher({ ...NOTHING, rules });
  expect(all(line(-41_260n, { otherAccount: 'DE1', name: 'Larkspur' }))[0]).toMatchObject({
    title: 'Strings',
    sure: 'sure',
  });
  expect(all(line(41_260n, { otherAccount: 'DE1' }))).toEqual([]);
  expect(all(line(-1_900n, { text: 'TERMINAL RENT NOV 2026' }))[0]).toMatchObject({ title: 'Terminal' });
  expect(all(line(-250n, { text: 'Account fee' }))[0]).toMatchObject({ sure: 'likely', parts: [{ id: 'charge' }] });
});

test('whoever paid before under a name or from an account is known; a name that was two people’s tells nothing', () => {
  const before = [
    { words: 'h s q', account: 'DE5', customerId: 'Harrow Street Quartet' },
    { words: 'twins', account: '', customerId: 'Harrow Street Quartet' },
    { words: 'twins', account: '', customerId: 'Ingrid Fallowell' },
  ];
  const all = matcher({ ...NOTHING, invoices: INVOICES, before });
  const facts = (of: MatchLine) => all(of)[0]?.facts[0];
  expect(facts(line(39_181n, { name: 'H. S. Q.' }))).toMatchObject({
    agrees: 'equal',
    means: expect.stringContaining('before'),
  });
  expect(all(line(39_181n, { name: 'Other', otherAccount: 'DE5' }))[0]).toMatchObject({
    title: 'Invoice 1200',
    sure: 'likely',
  });
  expect(facts(line(39_181n, { name: 'Twins' }))).toMatchObject({ agrees: 'no' });
});

test('cheques that were banked together, and what was written down by hand already', () => {
  const payment = (id: string, method: 'cheque' | 'transfer', amount: bigint) => ({
    id,
    method,
    amount,
    customer: 'Anselm Roke',
    customerId: 'anselm',
    invoiceNumber: `9${id}01`,
    reference: '',
  });
  const all = matcher({
    ...NOTHING,
    payments: [payment('1', 'cheque', 700n), payment('2', 'cheque', 1_100n), payment('3', 'transfer', 5_500n)],
  });
  expect(all(line(1_800n))[0]).toMatchObject({ title: '2 cheques', parts: [{ minor: 700n }, { minor: 1_100n }] });
  expect(all(line(5_500n, { text: 'invoice 9301' }))[0]).toMatchObject({ sure: 'sure', parts: [{ kind: 'payment' }] });
});

describe('names', () => {
  const alike = (a: string, b: string) => nameLikeness(nameWords(a), nameWords(b));
  test.each([
    ['HARROW STR QT', 'Harrow Street Quartet', 'like'],
    ['Nwosu, Calder', 'Calder Nwosu', 'equal'],
    ['ÖDÖN CALLOWAY', 'Odon Calloway', 'equal'],
    ['Fenwick Primary', 'Fenwick Primary School', 'like'],
    ['J SMITH', 'John Smith', 'like'],
    ['Petra Moor', 'Ines Moor', 'no'],
    ['', 'Ines Moor', 'no'],
    ['Müller GmbH', 'Müller', 'equal'],
  ])('%s and %s: %s', (a, b, wanted) => {
    expect(alike(a, b)).toBe(wanted);
  });
});

test('whatever is in the text, no proposal takes more than the line has, and parts with the rest are the line', () => {
  const text = fc.array(fc.constantFrom('1200', '1226', '1229', '1244', 'INV', '2027-0007', '/', 'x'), {
    maxLength: 8,
  });
  const amount = fc.oneof(fc.bigInt(1n, 90_000n), fc.constantFrom(39_181n, 60_181n, 21_000n, 40_110n));
  const name = fc.constantFrom('', 'Harrow Str Qt', 'I Fallowell', 'Nobody');
  fc.assert(
    fc.property(text, amount, name, (words, sum, who) => {
      for (const one of propose(line(sum, { text: words.join(' '), name: who }))) {
        const parts = one.parts.reduce((all, { minor }) => all + minor, 0n);
        expect(parts <= sum).toBe(true);
        if (one.rest >= 0n) expect(parts + one.rest).toBe(sum);
        if (one.sure === 'sure') expect(one.rest).toBe(0n);
        expect(new Set(one.parts.map(({ id }) => id)).size).toBe(one.parts.length);
      }
    }),
  );
});

test('numbers are found as people write them, and sums that add up are found', () => {
  expect([...numbersIn('Re: inv. 2027/0007, no 12 and A-77').keys()]).toEqual(
    expect.arrayContaining(['20270007', '2027', '0007', 'A77']),
  );
  const dues = [5n, 7n, 11n, 13n].map((due) => ({ due }));
  expect(addingUp(dues, 18n)).toEqual([{ due: 5n }, { due: 13n }]);
  expect(addingUp(dues, 36n)).toHaveLength(4);
  expect(addingUp(dues, 6n)).toBeNull();
});

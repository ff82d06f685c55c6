import { describe, expect, test } from 'vitest';
import type { CalendarDate } from '../dates/calendar-date';
import { completePaper, newLine } from '../paper/paper';
import { RuleError } from '../rule-error';
import { afterRefusal, partReminder, refusalClass } from './dunning';
import { firstCharges, forecast, type PlanTerms } from './plan';
import { readPlanRow } from './rows';
import { dateTrouble, planReading } from './sums';

const day = (text: string) => text as CalendarDate;
const setting = {
  taxes: [
    {
      id: 't',
      name: 'Sales tax',
      rate: '10',
      onDelivery: false,
      class: 'standard',
      country: 'US',
      retired: false,
    },
  ],
  currency: 'USD',
  pricesIncludeTax: false,
  home: { country: 'US' },
  customer: null,
};
const terms = (change: Partial<PlanTerms> = {}, price = '100'): PlanTerms => ({
  kind: 'membership',
  name: 'Care club',
  paper: completePaper({ lines: [newLine('l', 'piece', { what: 'Club', quantity: '1', price, taxesBy: 'place' })] }),
  schedule: { unit: 'month', every: 1, start: day('2026-01-31'), ends: 'never' },
  firstNow: false,
  setUp: '',
  freeFirst: false,
  deposit: '',
  leftover: 'even',
  pay: 'card',
  receipts: true,
  noticeDays: null,
  ...change,
});
const context = { startsOn: day('2026-01-10'), holidays: [day('2026-03-31')], pauses: [] };
const told = (of: PlanTerms, most = 4) => {
  const { sums } = planReading(of, setting);
  return firstCharges(of, sums, context, most).charges.map(
    ({ chargedOn, amountMinor, reasons }) => `${chargedOn} ${amountMinor} ${reasons.map(({ kind }) => kind).join('+')}`,
  );
};

describe('what is charged, when, and why then', () => {
  test('a short month, a weekend and a day off are said at the date', () => {
    const schedule = { unit: 'month', every: 1, start: day('2026-01-31'), ends: 'never', shift: 'previous' } as const;
    expect(told(terms({ schedule }))).toEqual([
      '2026-01-30 11000 weekend',
      '2026-02-27 11000 month-end+weekend',
      '2026-03-30 11000 holiday',
      '2026-04-30 11000 month-end',
    ]);
  });

  test('the first now and free, with a set-up fee that is taxed as the rest', () => {
    expect(told(terms({ firstNow: true, freeFirst: true, setUp: '5' }), 2)).toEqual([
      '2026-01-10 550 at-start+free+set-up',
      '2026-02-28 11000 month-end',
    ]);
  });

  test('the first now is now, also where its day is the day on which the plan begins', () => {
    const schedule = { unit: 'month', every: 1, start: context.startsOn, ends: 'never' } as const;
    expect(told(terms({ firstNow: true, schedule }), 2)).toEqual(['2026-01-10 11000 at-start', '2026-02-10 11000 ']);
    expect(told(terms({ schedule }), 1)).toEqual(['2026-01-10 11000 ']);
  });

  test('deposit and parts sum to the whole, whatever is left over, for every number of them', () => {
    for (const leftover of ['even', 'last'] as const)
      for (let count = 1; count <= 60; count++) {
        const schedule = { ...terms().schedule, ends: { after: count } };
        const of = terms({ kind: 'instalments', deposit: '13%', leftover, schedule }, '987.65');
        const { sums } = planReading(of, setting);
        const result = forecast(of, sums, context);
        expect(result.totalMinor, `${count} ${leftover}`).toBe(sums.eachMinor);
        expect(result.count).toBe(count + 1);
        const parts = result.charges.slice(1).map(({ amountMinor }) => amountMinor);
        // One unit apart at most, or the whole leftover on the last.
        const sorted = [...parts].sort((a, b) => Number(a - b));
        const spread = Number((sorted.at(-1) ?? 0n) - (sorted[0] ?? 0n));
        expect(spread).toBeLessThanOrEqual(leftover === 'even' ? 1 : count);
      }
  });

  test('an endless plan shows twelve, and what comes in within 365 days', () => {
    const of = terms({ schedule: { unit: 'week', every: 1, start: day('2026-01-12'), ends: 'never' } });
    const result = forecast(of, planReading(of, setting).sums, context);
    expect(result).toMatchObject({ endless: true, count: 12, last: null, comingYearMinor: 52n * 11_000n });
  });

  test('what does not work out is refused in words, and never forecast', () => {
    const endless = terms({ kind: 'instalments' });
    expect(() => forecast(endless, planReading(endless, setting).sums, context)).toThrow(RuleError);
    expect(dateTrouble(endless, planReading(endless, setting).sums, context)).toContain('how many payments');
    const ages = terms({
      schedule: { unit: 'day', every: 1, start: day('2026-01-01'), ends: { on: day('2199-01-01') } },
    });
    expect(dateTrouble(ages, planReading(ages, setting).sums, context)).toContain('more dates than anybody');
    const crumbs = terms({ kind: 'instalments', schedule: { ...terms().schedule, ends: { after: 40 } } }, '0.20');
    expect(dateTrouble(crumbs, planReading(crumbs, setting).sums, context)).toContain('fewer payments');
    const problems = planReading(terms({ name: ' ', deposit: '200%', kind: 'instalments' }), setting).problems;
    expect(problems.map(({ field }) => field).sort()).toEqual(['deposit', 'name']);
  });
});

describe('after a refusal', () => {
  const policy = { retryDays: [3, 5], secondCard: true, afterwards: 'pause' } as const;
  test.each([
    ['another card at once', 0, ['a', 'b'], ['a'], { kind: 'other-card', cardId: 'b' }],
    ['then time', 0, ['a', 'b'], ['a', 'b'], { kind: 'retry', days: 3 }],
    ['without a card of any use, time all the same', 1, [], [], { kind: 'retry', days: 5 }],
    ['in the end the policy', 2, ['a'], ['a'], { kind: 'give-up', afterwards: 'pause' }],
  ] as const)('%s', (_, round, usable, tried, wanted) => {
    expect(afterRefusal(policy, round, usable, tried)).toEqual(wanted);
  });
  test('only one card where the policy wants no second', () => {
    expect(afterRefusal({ ...policy, secondCard: false }, 0, ['a', 'b'], ['a'])).toEqual({ kind: 'retry', days: 3 });
    expect([refusalClass('not-enough-money'), refusalClass('card-expired'), refusalClass('approval-needed')]).toEqual([
      'later',
      'never',
      'customer',
    ]);
  });
});

test('a row of a table is a plan, or says what is wrong with it', () => {
  const row = { 'e-mail': 'a@b.example', plan: 'Club', price: '9.50', start: '2027-01-31' };
  expect(readPlanRow(row, 'l').terms).toMatchObject({
    kind: 'membership',
    schedule: { unit: 'month', every: 1, ends: 'never' },
  });
  // As whoever brings the file writes numbers.
  const priced = (price: string, sign: '.' | ',') =>
    readPlanRow({ ...row, price }, 'l', sign).terms?.paper.lines[0]?.price;
  expect([priced('1.500', ','), priced('1.500', '.'), priced('9,50', ','), priced('1,500', '.')]).toEqual([
    '1500',
    '1.500',
    '9.50',
    '1500',
  ]);
  expect(readPlanRow({ ...row, payments: '6', deposit: '20%' }, 'l').terms).toMatchObject({
    kind: 'instalments',
    schedule: { ends: { after: 6 } },
  });
  for (const [column, text] of [
    ['e-mail', 'nobody'],
    ['plan', ' '],
    ['price', '-1'],
    ['start', '31.1.2027'],
    ['every', '0'],
    ['unit', 'moon'],
    ['payments', '999'],
    ['deposit', '20%'],
  ] as const)
    expect(readPlanRow({ ...row, [column]: text }, 'l').trouble, column).not.toBe('');
});

test('a part is reminded of at the latest distance whose day has come, and never before it was asked for', () => {
  const part = { askedOn: day('2026-05-03'), payBy: day('2026-05-13') };
  const on = (today: string) => partReminder([-12, -2, 3, 10], part, day(today));
  expect(['2026-05-10', '2026-05-11', '2026-05-15', '2026-05-16', '2026-05-23', '2026-08-01'].map(on)).toEqual([
    null,
    -2,
    -2,
    3,
    10,
    10,
  ]);
  expect(partReminder([], part, day('2026-06-01'))).toBeNull();
});

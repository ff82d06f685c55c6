import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { CalendarDate } from '../dates/calendar-date';
import { giftProblems, isForOther, NO_GIFT } from './gift';
import {
  CODE_SIGNS,
  lastDayOf,
  type Spendable,
  taxInPart,
  voucherCodeText,
  voucherKey,
  voucherPart,
  voucherProblem,
  vouchersOf,
} from './voucher';

const day = (text: string) => text as CalendarDate;

test.each([
  ['three years, to the end of the last', '2026-11-28', { months: 36, toYearEnd: true }, '2029-12-31'],
  ['a year to the day', '2026-03-01', { months: 12, toYearEnd: false }, '2027-03-01'],
  ['a month that is too short', '2027-01-31', { months: 1, toYearEnd: false }, '2027-02-28'],
  ['a leap day', '2028-02-29', { months: 12, toYearEnd: false }, '2029-02-28'],
  ['over the turn of the year', '2026-12-15', { months: 1, toYearEnd: false }, '2027-01-15'],
  ['without end', '2026-12-15', { months: null, toYearEnd: true }, null],
] as const)('%s', (_, soldOn, rule, last) => {
  expect(lastDayOf(day(soldOn), rule)).toBe(last);
});

test('a code is found however it is typed', () => {
  const key = fc.stringMatching(new RegExp(`^[${CODE_SIGNS}]{16}$`));
  fc.assert(
    fc.property(key, fc.constantFrom(' ', '-', '', ' - '), (one, between) => {
      expect(voucherKey(voucherCodeText(one))).toBe(one);
      expect(voucherKey([...one].join(between).toLowerCase())).toBe(one);
    }),
  );
});

describe('what a voucher pays', () => {
  const minor = fc.bigInt(0n, 10n ** 8n);
  test('never more than it has or is due, and what is left can be paid', () => {
    fc.assert(
      fc.property(minor, minor, fc.bigInt(1n, 1000n), (available, due, smallest) => {
        const part = voucherPart(available, due, smallest);
        expect(part >= 0n && part <= available && part <= due).toBe(true);
        const left = due - part;
        expect(part === 0n || left === 0n || left >= smallest).toBe(true);
        // As much as that allows: one more would leave too little, or is not there.
        if (part < due && part < available) expect(left <= smallest || part === 0n).toBe(true);
      }),
    );
  });
  test.each([
    [3000n, 10000n, 50n, 3000n],
    [10000n, 3000n, 50n, 3000n],
    // 0.20 would be left, which no card pays: so much of the voucher stays.
    [2980n, 3000n, 50n, 2950n],
    [30n, 40n, 50n, 0n],
  ])('%s of %s', (available, due, smallest, part) => {
    expect(voucherPart(available, due, smallest)).toBe(part);
  });
  test('the taxes of the parts are the tax of the whole', () => {
    fc.assert(
      fc.property(minor, minor, minor, (tax, total, first) => {
        fc.pre(total > 0n && tax <= total && first <= total);
        const inFirst = taxInPart(tax, total, first);
        expect(inFirst >= 0n && inFirst <= tax).toBe(true);
        expect(inFirst <= first).toBe(true);
        expect(tax - inFirst <= total - first).toBe(true);
      }),
    );
  });
});

test('what is bought comes to what was paid, voucher by voucher', () => {
  expect(vouchersOf([{ quantity: '3', net: 10000 }])).toEqual([3333n, 3333n, 3334n]);
  expect(
    vouchersOf([
      { quantity: '1', net: 5000 },
      { quantity: '2', net: 2000 },
    ]),
  ).toEqual([5000n, 1000n, 1000n]);
});

test.each([
  ['good', {}, null],
  ['on its last day', { expiresOn: day('2027-03-01') }, null],
  ['a day later', { expiresOn: day('2027-02-28') }, 'voucher-over'],
  ['nothing left', { availableMinor: 0n }, 'voucher-used-up'],
  ['other money', { currency: 'EUR' }, 'voucher-currency'],
  ['stopped', { blocked: true, availableMinor: 0n }, 'voucher-blocked'],
] as const)('a voucher: %s', (_, change, problem) => {
  const voucher: Spendable = { currency: 'USD', availableMinor: 100n, expiresOn: null, blocked: false, ...change };
  expect(voucherProblem(voucher, { currency: 'USD', today: day('2027-03-01') })).toBe(problem);
});

test.each([
  ['for oneself', NO_GIFT, []],
  ['to somebody on a day', { ...NO_GIFT, toEmail: 'ida@marsh.example', on: '2027-12-24' }, []],
  ['a wrong address', { ...NO_GIFT, toEmail: 'ida@' }, ['gift-email-wrong']],
  ['a day that has passed', { ...NO_GIFT, on: '2027-02-28' }, ['gift-day-wrong']],
  ['a day in years', { ...NO_GIFT, on: '2029-01-01' }, ['gift-day-wrong']],
  ['no day at all', { ...NO_GIFT, on: 'Friday' }, ['gift-day-wrong']],
] as const)('a gift: %s', (_, gift, codes) => {
  expect(giftProblems(gift, day('2027-03-01')).map(({ code }) => code)).toEqual(codes);
  expect(isForOther(gift)).toBe(gift !== NO_GIFT);
});

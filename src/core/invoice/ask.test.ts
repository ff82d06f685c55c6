import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, calendarDate } from '../dates/calendar-date';
import { completePaper } from '../paper/paper';
import { ASKED_STATES, EVERYTHING, isNarrowed, stateCounts } from './ask';
import { dueDate, issueDate } from './due';

const TODAY = calendarDate('2026-11-27');
const day = fc.integer({ min: -60, max: 60 }).map((days) => addDays(TODAY, days));
const row = fc
  .record({
    status: fc.constantFrom('sent', 'seen', 'part', 'paid', 'cancelled' as const),
    currency: fc.constantFrom('USD', 'EUR'),
    on: fc.option(day, { nil: null }),
    count: fc.integer({ min: 1, max: 50 }),
    totalMinor: fc.bigInt({ min: 0n, max: 10n ** 9n }),
  })
  .chain((kept) => fc.bigInt({ min: 0n, max: kept.totalMinor }).map((dueMinor) => ({ ...kept, dueMinor })));
const drafts = fc.array(
  fc.record({
    currency: fc.constantFrom('USD', 'EUR'),
    count: fc.integer({ min: 1, max: 9 }),
    totalMinor: fc.bigInt({ min: 0n, max: 10n ** 9n }),
  }),
  { maxLength: 3 },
);

describe('counts by state', () => {
  test('every invoice is counted once, in one state', () => {
    fc.assert(
      fc.property(fc.array(row, { maxLength: 30 }), drafts, (rows, open) => {
        const counts = stateCounts(rows, open, TODAY);
        const counted = counts.reduce((sum, { count }) => sum + count, 0);
        expect(counted).toBe([...rows, ...open].reduce((sum, { count }) => sum + count, 0));
        expect(counts.map(({ state }) => state)).toEqual([...ASKED_STATES]);
      }),
    );
  });

  test('what is open in all states together is what is due in all rows that are open, currency by currency', () => {
    fc.assert(
      fc.property(fc.array(row, { maxLength: 30 }), (rows) => {
        const open = ['sent', 'seen', 'part', 'overdue'];
        for (const currency of ['USD', 'EUR']) {
          const shown = stateCounts(rows, [], TODAY)
            .filter(({ state }) => open.includes(state))
            .reduce((sum, { sums }) => sum + (sums[currency] ?? 0n), 0n);
          const due = rows
            .filter((one) => one.currency === currency && one.status !== 'paid' && one.status !== 'cancelled')
            .reduce((sum, { dueMinor }) => sum + dueMinor, 0n);
          expect(shown).toBe(due);
        }
      }),
    );
  });

  test('on its due date an invoice is not late yet, a day later it is; what is paid never', () => {
    const of = (status: 'sent' | 'paid', on: string) =>
      stateCounts(
        [{ status, currency: 'USD', on: calendarDate(on), count: 1, totalMinor: 5n, dueMinor: 5n }],
        [],
        TODAY,
      ).find(({ count }) => count > 0)?.state;
    expect([of('sent', '2026-11-27'), of('sent', '2026-11-26'), of('paid', '2026-11-26')]).toEqual([
      'sent',
      'overdue',
      'paid',
    ]);
  });
});

test('an order of the list narrows nothing; anything else that is written does', () => {
  expect(isNarrowed({ ...EVERYTHING, sort: 'total', descending: false })).toBe(false);
  expect(isNarrowed({ ...EVERYTHING, words: '  ' })).toBe(false);
  for (const part of [{ words: 'x' }, { state: 'paid' }, { group: 'Choir' }, { from: '2026-01-01' }, { most: '5' }])
    expect(isNarrowed({ ...EVERYTHING, ...part } as typeof EVERYTHING), JSON.stringify(part)).toBe(true);
});

describe('when it is due', () => {
  test.each([
    [{ kind: 'receipt' }, '2026-01-31'],
    [{ kind: 'days', days: 30 }, '2026-03-02'],
    [{ kind: 'month-end' }, '2026-01-31'],
    [{ kind: 'date', date: '2026-02-28' }, '2026-02-28'],
    [{ kind: 'date', date: '2026-02-30' }, null],
    [{ kind: 'date', date: '' }, null],
  ] as const)('%j', (due, on) => {
    expect(dueDate(due, calendarDate('2026-01-31'))).toBe(on);
  });

  test('the month’s end is never before the day of issue, in leap years too', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3000 }), (days) => {
        const issued = addDays(calendarDate('2024-01-01'), days);
        const due = dueDate({ kind: 'month-end' }, issued);
        expect(due !== null && due >= issued && addDays(due, 1).endsWith('-01')).toBe(true);
      }),
    );
  });

  test('it is issued on the day that was chosen, else on the day of sending', () => {
    expect(issueDate(completePaper({ issuedOn: '2026-02-01' }), TODAY)).toBe('2026-02-01');
    expect(issueDate(completePaper({ issuedOn: 'soon' }), TODAY)).toBe(TODAY);
  });
});

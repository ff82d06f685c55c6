import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { CalendarDate } from '../dates/calendar-date';
import { type Schedule, scheduledDates } from './schedule';

const rule = (change: object): Schedule =>
  ({ unit: 'month', every: 1, start: '2026-01-05' as CalendarDate, ends: { after: 2 }, ...change }) as Schedule;

test.each([
  ['a number', { weekend: 6 }],
  ['words', { weekend: 'sat, sun' }],
  ['null', { weekend: null }],
  ['days as text', { weekend: ['6', '7'] }],
  ['all seven', { weekend: [1, 2, 3, 4, 5, 6, 7] }],
  ['an eighth day', { weekend: [8] }],
  ['days of the month that are no list', { monthDays: 'last' }],
  ['weekdays that are no list', { unit: 'week', weekdays: 1 }],
])('%s: no schedule at all, whatever else is typed', (_what, change) => {
  expect(() => [...scheduledDates(rule(change), {})]).toThrow(expect.objectContaining({ code: 'bad_schedule' }));
});

test('anything else than weekdays 1 to 7 in a list is never taken for a weekend', () => {
  fc.assert(
    fc.property(fc.anything(), (weekend) => {
      const isList = Array.isArray(weekend) && weekend.every((day) => [1, 2, 3, 4, 5, 6, 7].includes(day as number));
      fc.pre(!isList && weekend !== undefined);
      expect(() => [...scheduledDates(rule({ weekend }), {})]).toThrow(
        expect.objectContaining({ code: 'bad_schedule' }),
      );
    }),
  );
});

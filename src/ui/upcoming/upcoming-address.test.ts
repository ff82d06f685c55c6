import fc from 'fast-check';
import { expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import { type UpcomingAsked, upcomingAddress, upcomingQuery } from './upcoming-address';

const TODAY = calendarDate('2026-11-27');
const PLAIN: UpcomingAsked = { words: '', state: '', from: TODAY, to: '', notCarried: false, as: 'list' };

test('what is usual is left out: the plain list is the plain address', () => {
  expect(upcomingAddress(PLAIN, '2026-11', TODAY)).toBe('/money/upcoming?');
});

test('what is asked is there, written so that it can be read back', () => {
  const words = fc.string({ maxLength: 12 });
  const asked = fc.record({
    words,
    state: fc.constantFrom('', 'refused', 'charged'),
    from: fc.constantFrom('', TODAY, '2026-01-01'),
    to: fc.constantFrom('', '2026-12-31'),
    notCarried: fc.boolean(),
    as: fc.constantFrom('list', 'calendar' as const),
  });
  fc.assert(
    fc.property(asked, fc.constantFrom('2026-11', '2027-02'), (ask, month) => {
      const query = new URL(upcomingAddress(ask, month, TODAY), 'http://x').searchParams;
      expect({
        words: query.get('words') ?? '',
        state: query.get('state') ?? '',
        from: query.get('from') ?? (ask.from === '' ? '' : TODAY),
        to: query.get('to') ?? '',
        notCarried: query.get('notCarried') === 'yes',
        as: query.get('as') ?? 'list',
        month: query.get('month') ?? '2026-11',
      }).toEqual({ ...ask, words: ask.words.trim(), month });
    }),
  );
});

test('a file holds just what the list shows: the day it begins on too, which the address leaves out', () => {
  expect([...upcomingQuery({ ...PLAIN, words: ' Öystad ', notCarried: true })]).toEqual([
    ['words', 'Öystad'],
    ['from', TODAY],
    ['notCarried', 'yes'],
  ]);
});

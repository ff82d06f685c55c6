import { expect, test } from 'vitest';
import { calendarDate } from '@/core/dates/calendar-date';
import { calendarLines } from './charge-calendar';
import type { DrawnCharge } from './charge-words';

const on = (...days: readonly string[]): DrawnCharge[] =>
  days.map((day) => ({
    part: 'period',
    nominal: calendarDate(day),
    chargedOn: calendarDate(day),
    minor: 100,
    reasons: [],
  }));
const keysOf = (charges: readonly DrawnCharge[]) =>
  calendarLines(charges).map(({ key, months }) => [key, months.length]);

test('a month is a line as long as most months have a charge; of a longer rhythm the quarters in which something falls', () => {
  expect(keysOf(on('2026-11-30', '2026-12-31', '2027-01-31'))).toEqual([
    ['2026-11', 1],
    ['2026-12', 1],
    ['2027-01', 1],
  ]);
  // Every second month: one empty line between two.
  expect(keysOf(on('2026-01-31', '2026-03-31', '2026-05-31'))).toHaveLength(5);
  expect(keysOf(on('2026-11-15', '2027-02-15', '2027-05-15'))).toEqual([
    ['2026-10', 3],
    ['2027-01', 3],
    ['2027-04', 3],
  ]);
  // Yearly, over more years than there are lines: those at the end are left to the sums.
  const yearly = on(...Array.from({ length: 30 }, (_, at) => `${2026 + at}-12-31`));
  expect(keysOf(yearly)).toHaveLength(24);
  expect(keysOf(yearly)[1]).toEqual(['2027-10', 3]);
  expect(keysOf([])).toEqual([]);
});

test('a charge that was moved into the next month stands on the line of the day it is made, and the line of its date is there too', () => {
  const [moved] = on('2027-01-31');
  const lines = calendarLines([{ ...(moved as DrawnCharge), chargedOn: calendarDate('2027-02-01') }]);
  expect(lines.map(({ key, charges }) => [key, charges.length])).toEqual([
    ['2027-01', 0],
    ['2027-02', 1],
  ]);
});

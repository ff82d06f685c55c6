import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, calendarDate } from '../dates/calendar-date';
import type { Schedule } from './schedule';
import { monthlyFrom, readSchedule, typedSchedule } from './typed';

const START = calendarDate('2026-01-31');
const day = fc.integer({ min: 0, max: 4000 }).map((days) => addDays(START, days));
const unit = fc.constantFrom('day', 'week', 'month', 'year' as const);
const ends = fc.oneof(
  fc.constant('never' as const),
  day.map((on) => ({ on })),
  fc.integer({ min: 1, max: 1000 }).map((after) => ({ after })),
);
const schedule: fc.Arbitrary<Schedule> = unit.chain((of) =>
  fc.record({
    unit: fc.constant(of),
    every: fc.integer({ min: 1, max: 366 }),
    start: day,
    ends,
    shift: fc.constantFrom('none', 'next', 'previous', 'skip' as const),
    ...(of === 'month'
      ? {
          monthDays: fc.array(fc.oneof(fc.integer({ min: 1, max: 31 }), fc.constant('last' as const)), {
            minLength: 1,
            maxLength: 4,
          }),
        }
      : {}),
    ...(of === 'week' ? { weekdays: fc.subarray([1, 2, 3, 4, 5, 6, 7], { minLength: 1 }) } : {}),
  }),
);

test('a schedule that is opened and kept again without a change is the same schedule', () => {
  fc.assert(
    fc.property(schedule, (kept) => {
      expect(readSchedule(typedSchedule(kept))).toEqual({ schedule: kept });
    }),
  );
});

describe('what cannot be read names its place', () => {
  test.each([
    [{ every: '0' }, 'every'],
    [{ every: '1.5' }, 'every'],
    [{ every: '' }, 'every'],
    [{ start: '2026-02-30' }, 'start'],
    [{ monthDays: '1, 32' }, 'monthDays'],
    [{ monthDays: 'first' }, 'monthDays'],
    [{ ends: 'on', endsOn: 'soon' }, 'endsOn'],
    [{ ends: 'after', count: '1001' }, 'count'],
  ] as const)('%j', (part, field) => {
    expect(readSchedule({ ...monthlyFrom(START), ...part })).toMatchObject({ field });
  });
});

test('days of the month count for months only, weekdays for weeks only', () => {
  const typed = { ...monthlyFrom(START), monthDays: '1 15;LAST', weekdays: [1, 3] };
  expect(readSchedule(typed)).toMatchObject({ schedule: { monthDays: [1, 15, 'last'] } });
  const weekly = readSchedule({ ...typed, unit: 'week', monthDays: 'nonsense' });
  expect(weekly).toMatchObject({ schedule: { weekdays: [1, 3] } });
  expect('schedule' in weekly && 'monthDays' in weekly.schedule).toBe(false);
});

test('what has to end does, after as many as are typed', () => {
  expect(readSchedule({ ...monthlyFrom(START), count: '6' }, true)).toMatchObject({ schedule: { ends: { after: 6 } } });
});

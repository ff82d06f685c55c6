import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  addDays,
  type CalendarDate,
  calendarDate,
  dateOfDayNumber,
  dayNumber,
  daysBetween,
  isCalendarDate,
  weekday,
} from './calendar-date';
import { clockTime, dayHeading, fromToday, longDate, shortDate } from './date-text';
import { dateInZone, zonedText } from './zone';

const DAY_MS = 86_400_000;
const days = fc.integer({ min: Date.UTC(1900, 0, 1) / DAY_MS, max: Date.UTC(2300, 0, 1) / DAY_MS });
const isoOf = (day: number) => new Date(day * DAY_MS).toISOString().slice(0, 10) as CalendarDate;

describe('civil days, against the platform’s calendar', () => {
  test('adding, counting and weekdays agree over four centuries', () => {
    fc.assert(
      fc.property(days, fc.integer({ min: -4000, max: 4000 }), (day, step) => {
        const on = isoOf(day);
        expect(addDays(on, step)).toBe(isoOf(day + step));
        expect(daysBetween(on, isoOf(day + step))).toBe(step);
        expect(weekday(on) % 7).toBe(new Date(day * DAY_MS).getUTCDay());
        expect(dateOfDayNumber(dayNumber(on))).toBe(on);
      }),
    );
  });

  test('a day that does not exist is refused, not moved', () => {
    expect(
      ['2026-02-29', '2026-04-31', '2026-13-01', '2026-00-10', '26-01-01', '2026-1-1', ''].filter(isCalendarDate),
    ).toEqual([]);
    expect(isCalendarDate('2028-02-29')).toBe(true);
    expect(() => calendarDate('2026-02-29')).toThrow(expect.objectContaining({ code: 'bad_date' }));
    expect(addDays('9999-12-30' as CalendarDate, 1)).toBe('9999-12-31');
    expect(() => addDays('9999-12-31' as CalendarDate, 1)).toThrow(expect.objectContaining({ code: 'bad_date' }));
  });
});

test('an instant falls on the zone’s day', () => {
  const instant = new Date('2026-03-08T05:30:00Z');
  expect(dateInZone(instant, 'UTC')).toBe('2026-03-08');
  expect(dateInZone(instant, 'America/Los_Angeles')).toBe('2026-03-07');
  expect(dateInZone(instant, 'Pacific/Auckland')).toBe('2026-03-08');
  expect(() => dateInZone(instant, 'Mars/Base')).toThrow(expect.objectContaining({ code: 'bad_zone' }));
  expect(clockTime(instant, 'America/Los_Angeles')).toBe('21:30');
});

test('dates as they are read', () => {
  const on = calendarDate('2025-11-28');
  expect(shortDate(on, 'en-US')).toBe('28 Nov');
  expect(shortDate(on, 'en-US', { weekday: true, year: true })).toBe('Fri 28 Nov 2025');
  expect(longDate(on, 'en-US')).toBe('November 28, 2025');
  expect(dayHeading(on, 'en-US')).toBe('Friday, 28 November');
  expect([0, 1, -1, 15, -9].map((step) => fromToday(addDays(on, step), on))).toEqual([
    'today',
    'tomorrow',
    'yesterday',
    'in 15 days',
    '9 days ago',
  ]);
});

test('a moment for programs is the zone’s clock with its distance from UTC, and the same instant again', () => {
  const at = new Date('2026-11-27T16:28:03.500Z');
  expect(zonedText(at, 'America/New_York')).toBe('2026-11-27T11:28:03-05:00');
  expect(zonedText(at, 'Asia/Kathmandu')).toBe('2026-11-27T22:13:03+05:45');
  expect(zonedText(at, 'UTC')).toBe('2026-11-27T16:28:03+00:00');
  for (const zone of ['Europe/Paris', 'Pacific/Apia', 'America/St_Johns', 'Australia/Lord_Howe'])
    for (let day = 0; day < 400; day += 7) {
      const instant = new Date(Date.UTC(2026, 0, 1, 3, 17, 9) + day * 86_400_000);
      expect(new Date(zonedText(instant, zone))).toEqual(instant);
    }
});

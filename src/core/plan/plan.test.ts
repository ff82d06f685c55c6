import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { addDays, type CalendarDate, calendarDate, weekday } from '../dates/calendar-date';
import { dateInZone, instantInZone } from '../dates/zone';
import { begunAnew, firstDates, type Schedule } from '../schedule/schedule';
import { instalments } from './instalments';

const DAY_MS = 86_400_000;
const days = fc
  .integer({ min: Date.UTC(2000, 0, 1) / DAY_MS, max: Date.UTC(2090, 0, 1) / DAY_MS })
  .map((day) => new Date(day * DAY_MS).toISOString().slice(0, 10) as CalendarDate);

test('instalments sum to the total less the deposit, and differ by one unit at most', () => {
  fc.assert(
    fc.property(
      fc.bigInt(1n, 10n ** 12n),
      fc.integer({ min: 1, max: 60 }),
      fc.constantFrom<['even' | 'last']>(['even'], ['last']),
      (rest, count, [leftover]) => {
        fc.pre(rest >= BigInt(count));
        const payments = instalments(rest + 500n, count, 500n, leftover);
        expect(payments.reduce((a, b) => a + b, 0n)).toBe(rest);
        expect(payments.every((payment) => payment > 0n)).toBe(true);
        const even = leftover === 'even' ? payments : payments.slice(0, -1);
        expect(even.every((payment) => (even[0] ?? 0n) - payment <= 1n)).toBe(true);
      },
    ),
  );
});

describe('schedules', () => {
  test('begun anew a rhythm goes on with dates that it had before, from that day on, and a 31st stays one', () => {
    const units = fc.constantFrom('day', 'week', 'month', 'year');
    fc.assert(
      fc.property(days, fc.nat(900), units, fc.integer({ min: 1, max: 4 }), (start, later, unit, every) => {
        const old: Schedule = { unit, every, start, ends: { after: 3 }, shift: 'next' };
        const from = addDays(start, later);
        const anew = begunAnew(old, from);
        expect(anew.start >= from).toBe(true);
        expect({ ...anew, start }).toEqual(old);
        const before = firstDates({ ...old, ends: 'never', shift: 'none' }, {}, 2000).dates.map(
          ({ nominal }) => nominal,
        );
        expect(before).toContain(anew.start);
        if (unit === 'month') expect(anew.start.slice(8)).toBe(start.slice(8));
      }),
      { numRuns: 60 },
    );
    const listed: Schedule = {
      unit: 'month',
      every: 1,
      start: calendarDate('2026-08-04'),
      monthDays: [31],
      ends: 'never',
    };
    expect(begunAnew(listed, calendarDate('2026-11-23')).start).toBe('2026-11-30');
  });

  test('months are counted from the start, as the platform’s calendar has them: no drift', () => {
    fc.assert(
      fc.property(days, fc.integer({ min: 1, max: 5 }), (start, every) => {
        const { dates } = firstDates({ unit: 'month', every, start, ends: 'never' }, {}, 40);
        const [year, month, day] = start.split('-').map(Number) as [number, number, number];
        dates.forEach(({ nominal }, k) => {
          const length = new Date(Date.UTC(year, month + k * every, 0)).getUTCDate();
          expect(nominal).toBe(
            new Date(Date.UTC(year, month - 1 + k * every, Math.min(day, length))).toISOString().slice(0, 10),
          );
        });
      }),
    );
  });

  test('whatever the rule: nominal dates rise, none lies before the start or in a pause, and charging never falls on a day off', () => {
    const rules = fc.record({
      start: days,
      rule: fc.constantFrom<Partial<Schedule>>(
        { unit: 'day', every: 3 },
        { unit: 'week', every: 2, weekdays: [1, 6] },
        { unit: 'month', every: 1, monthDays: [1, 15, 'last'] },
        { unit: 'year', every: 1 },
      ),
      shift: fc.constantFrom<'next' | 'previous' | 'skip'>('next', 'previous', 'skip'),
    });
    fc.assert(
      fc.property(rules, ({ start, rule, shift }) => {
        const holidays = [addDays(start, 2), addDays(start, 3)];
        const pause = { from: addDays(start, 10), to: addDays(start, 40) };
        const schedule = { ...rule, start, shift, ends: { after: 12 } } as Schedule;
        const { dates, more } = firstDates(schedule, { holidays, pauses: [pause] }, 20);
        expect(dates.length).toBe(12);
        expect(more).toBe(false);
        dates.forEach(({ nominal, charged }, at) => {
          expect(nominal >= start && nominal > (dates[at - 1]?.nominal ?? '')).toBe(true);
          expect(nominal >= pause.from && nominal <= pause.to).toBe(false);
          expect(weekday(charged)).toBeLessThan(6);
          expect(holidays).not.toContain(charged);
        });
      }),
    );
  });

  test('an end of time ends it', () => {
    const start = calendarDate('9999-12-30');
    expect(firstDates({ unit: 'day', every: 1, start, ends: 'never' }, {}, 5).dates.length).toBe(2);
  });
});

test('an instant found for a day and hour shows that day and hour again, outside of gaps', () => {
  const zones = fc.constantFrom(
    'UTC',
    'America/New_York',
    'Europe/Berlin',
    'Asia/Kolkata',
    'Pacific/Auckland',
    'America/St_Johns',
  );
  fc.assert(
    fc.property(days, zones, (date, zone) => {
      const instant = instantInZone(date, '12:00', zone);
      expect(dateInZone(instant, zone)).toBe(date);
      expect(
        new Intl.DateTimeFormat('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(instant),
      ).toBe('12:00');
    }),
  );
});

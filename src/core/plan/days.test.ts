import fc from 'fast-check';
import { expect, test } from 'vitest';
import { addDays, calendarDate } from '../dates/calendar-date';
import { chargeInstant, todayOf } from './days';

const ZONES = [
  'America/Los_Angeles',
  'Europe/Berlin',
  'Asia/Kathmandu',
  'Pacific/Kiritimati',
  'America/St_Johns',
  'UTC',
];
const day = fc.integer({ min: 0, max: 1500 }).map((days) => addDays(calendarDate('2025-01-01'), days));
const place = fc.record({
  zone: fc.constantFrom(...ZONES),
  charging: fc.record({ hour: fc.constantFrom('00:00', '02:30', '07:00', '12:00', '23:59') }),
});

test('what is charged on a day is charged on that day, as the business’s own calendar has it', () => {
  fc.assert(
    fc.property(place, day, (of, on) => {
      expect(todayOf(of, chargeInstant(of, on))).toBe(on);
    }),
  );
});

test('days are charged in their order, and none twice, also where the clock is set back or forward', () => {
  fc.assert(
    fc.property(place, day, (of, on) => {
      const [one, next] = [chargeInstant(of, on), chargeInstant(of, addDays(on, 1))];
      const hours = (next.getTime() - one.getTime()) / 3_600_000;
      expect(hours).toBeGreaterThanOrEqual(22.5);
      expect(hours).toBeLessThanOrEqual(25.5);
    }),
  );
});

test('at 07:00 in Los Angeles it is 15:00 in UTC in winter and 14:00 in summer', () => {
  const of = { zone: 'America/Los_Angeles', charging: { hour: '07:00' } };
  expect(chargeInstant(of, calendarDate('2026-01-15')).toISOString()).toBe('2026-01-15T15:00:00.000Z');
  expect(chargeInstant(of, calendarDate('2026-07-15')).toISOString()).toBe('2026-07-15T14:00:00.000Z');
});

import fc from 'fast-check';
import { expect, test } from 'vitest';
import { isQuiet } from '../business/business';
import { clockTime } from '../dates/date-text';
import { GATHERED_MINUTES, newsMailedFrom } from './news';

const hour = fc
  .record({ hours: fc.integer({ min: 0, max: 23 }), minutes: fc.constantFrom(0, 15, 30, 59) })
  .map(({ hours, minutes }) => `${`${hours}`.padStart(2, '0')}:${`${minutes}`.padStart(2, '0')}`);
const zones = fc.constantFrom('Europe/Berlin', 'America/New_York', 'Pacific/Auckland', 'Asia/Kathmandu', 'UTC');
const moments = fc.date({
  min: new Date('2026-01-01T00:00:00Z'),
  max: new Date('2027-12-31T00:00:00Z'),
  noInvalidDate: true,
});

test('a mail of news leaves as soon as it may, and never in quiet hours', () => {
  fc.assert(
    fc.property(moments, hour, hour, zones, (now, quietFrom, quietTo, zone) => {
      const quiet = { quietFrom, quietTo };
      const at = newsMailedFrom(now, quiet, zone);
      const gathered = now.getTime() + GATHERED_MINUTES * 60_000;
      expect(at.getTime()).toBeGreaterThanOrEqual(gathered);
      // A day has up to 25 hours.
      expect(at.getTime() - gathered).toBeLessThanOrEqual(25 * 3_600_000);
      // The clock may leap over the end of the quiet hours; then they end with the leap.
      if (at.getTime() > gathered) expect(clockTime(at, zone) >= quietTo).toBe(true);
      else expect(isQuiet(quiet, clockTime(at, zone))).toBe(false);
    }),
  );
});

test.each([
  ['in the evening, until the morning', '2026-11-27T20:00:00Z', '2026-11-28T06:30:00.000Z'],
  ['after midnight, until the same morning', '2026-11-28T02:00:00Z', '2026-11-28T06:30:00.000Z'],
  ['by day, at once', '2026-11-28T10:00:00Z', '2026-11-28T10:02:00.000Z'],
  ['a minute before the quiet, not into it', '2026-11-28T18:59:00Z', '2026-11-29T06:30:00.000Z'],
])('quiet from 20:00 to 07:30 in Berlin: %s', (_when, now, at) => {
  const quiet = { quietFrom: '20:00', quietTo: '07:30' };
  expect(newsMailedFrom(new Date(now), quiet, 'Europe/Berlin').toISOString()).toBe(at);
});

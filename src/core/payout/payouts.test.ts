import fc from 'fast-check';
import { expect, test } from 'vitest';
import { bankingDays } from '../dates/banking-days';
import { addDays, type CalendarDate } from '../dates/calendar-date';
import { type PayoutSchedule, type PayoutTerms, payouts } from './payouts';

const START = '2026-01-01' as CalendarDate;
const dayOf = (count: number) => addDays(START, count);
const schedule: fc.Arbitrary<PayoutSchedule> = fc.oneof(
  fc.constant({ kind: 'daily' } as const),
  fc.integer({ min: 1, max: 7 }).map((weekday) => ({ kind: 'weekly', weekday }) as const),
  fc.integer({ min: 1, max: 31 }).map((day) => ({ kind: 'monthly', day }) as const),
);
const terms: fc.Arbitrary<PayoutTerms> = fc.record({
  schedule,
  lag: fc.integer({ min: 0, max: 10 }),
  minimum: fc.bigInt(0n, 5000n),
  reserve: fc.record({ percent: fc.constantFrom('0', '5', '12.5', '100'), days: fc.integer({ min: 0, max: 60 }) }),
  holidays: fc.array(fc.nat(200).map(dayOf), { maxLength: 8 }),
});
const days = fc
  .uniqueArray(fc.record({ at: fc.nat(150), net: fc.bigInt(-3000n, 9000n) }), {
    selector: ({ at }) => at,
    maxLength: 40,
  })
  .map((list) => list.map(({ at, net }) => ({ day: dayOf(at), net })));

test('whatever the schedule: each day in one payout at most, on banking days, never before it is ready, and every cent is paid or left', () => {
  fc.assert(
    fc.property(days, terms, (list, how) => {
      const until = dayOf(400);
      const { payouts: made, left } = payouts(list, how, until);
      const banking = bankingDays(how);
      const counted = made.flatMap((one) => one.days);
      expect(new Set(counted).size).toBe(counted.length);
      const net = new Map(list.map((one) => [one.day, one.net]));
      for (const one of made) {
        expect(banking.is(one.on) && one.on <= until).toBe(true);
        expect(one.amount >= (how.minimum ?? 1n) && one.amount >= 1n).toBe(true);
        for (const day of one.days) expect(banking.after(day, how.lag ?? 1) <= one.on).toBe(true);
        const sum = one.days.reduce((all, day) => all + (net.get(day) ?? 0n), 0n);
        expect(one.amount).toBe(sum - one.reserved + one.released);
      }
      const all = list.reduce((sum, one) => sum + one.net, 0n);
      expect(made.reduce((sum, { amount }) => sum + amount, left)).toBe(all);
      // With all the time there is nothing is held any more: what is left is below the smallest sum.
      const most = how.minimum && how.minimum > 1n ? how.minimum : 1n;
      expect(left < most).toBe(true);
    }),
    { numRuns: 300 },
  );
});

import fc from 'fast-check';
import { expect, test } from 'vitest';
import { Allowance } from './allowance';

test('nobody gets more than what is given at once and with time, and whoever is quiet gets all of it again', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 30 }),
      fc.integer({ min: 1, max: 10 }),
      fc.array(fc.integer({ min: 0, max: 2000 }), { minLength: 1, maxLength: 200 }),
      (capacity, perSecond, pauses) => {
        const allowance = new Allowance(capacity, perSecond);
        let now = 0;
        let passed = 0;
        for (const pause of pauses) {
          now += pause;
          if (allowance.secondsToWait('a', now) > 0) continue;
          passed++;
          allowance.spend('a', now);
        }
        expect(passed).toBeLessThanOrEqual(capacity + (now / 1000) * perSecond + 1e-6);
        // Another's spending is not theirs.
        expect(allowance.secondsToWait('b', now)).toBe(0);
        now += ((2 * capacity) / perSecond) * 1000;
        for (let at = 0; at < capacity; at++) {
          expect(allowance.secondsToWait('a', now)).toBe(0);
          allowance.spend('a', now);
        }
        expect(allowance.secondsToWait('a', now)).toBeGreaterThan(0);
      },
    ),
  );
});

test('the seconds it names are enough, also for who goes on without looking', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 30 }),
      fc.integer({ min: 1, max: 5 }),
      fc.nat(300),
      (capacity, perSecond, times) => {
        const allowance = new Allowance(capacity, perSecond);
        for (let at = 0; at < times; at++) allowance.spend('a', 5);
        const wait = allowance.secondsToWait('a', 5);
        expect(wait).toBeLessThanOrEqual(Math.ceil((capacity + 1) / perSecond));
        expect(allowance.secondsToWait('a', 5 + wait * 1000)).toBe(0);
      },
    ),
  );
});

test('a thousand addresses of one sender take no more memory than is given to them', () => {
  const allowance = new Allowance(1, 1, 10);
  for (let at = 0; at < 1000; at++) allowance.spend(`a${at}`, at);
  expect(allowance.secondsToWait('a999', 999)).toBe(1);
  expect(allowance.secondsToWait('a0', 999)).toBe(0);
  expect(allowance.known).toBe(10);
});

import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readRecoveryCode, recoveryCode } from './recovery-code';
import {
  ASKED_SECONDS,
  areOver,
  askedAboveMinor,
  asksForStep,
  asksToGiveBack,
  isAskedAgain,
  LOST_DAYS,
  NO_STEPS,
  waysOf,
} from './steps';

const steps = fc.record({
  hasApp: fc.boolean(),
  passkeys: fc.nat(3),
  codesLeft: fc.nat(10),
  lostAt: fc.constant(null),
});

test('whoever has an app or a passkey is asked, and then has a way; recovery codes alone ask nothing', () => {
  fc.assert(
    fc.property(steps, (own) => {
      expect(asksForStep(own)).toBe(own.hasApp || own.passkeys > 0);
      expect(waysOf(own).length > 0).toBe(asksForStep(own));
      expect(waysOf(own).includes('recovery')).toBe(asksForStep(own) && own.codesLeft > 0);
    }),
  );
  expect(waysOf({ ...NO_STEPS, codesLeft: 10 })).toEqual([]);
});

test('what is lost is over after three days and no moment before', () => {
  const lostAt = new Date('2026-03-01T10:00:00Z');
  const after = (ms: number) => areOver({ ...NO_STEPS, lostAt }, new Date(lostAt.getTime() + ms));
  expect(after(LOST_DAYS * 86_400_000 - 1)).toBe(false);
  expect(after(LOST_DAYS * 86_400_000)).toBe(true);
  expect(areOver(NO_STEPS, lostAt)).toBe(false);
});

test('somebody is asked again after five minutes, and where the time is no time', () => {
  expect([0, 1, ASKED_SECONDS].map(isAskedAgain)).toEqual([false, false, false]);
  expect([ASKED_SECONDS + 0.1, 1e9, Number.NaN, -1, Number.POSITIVE_INFINITY].map(isAskedAgain)).toEqual(
    Array(5).fill(true),
  );
});

test('what is given back asks above the sum of the business, and in another currency always', () => {
  const usual = { currency: 'USD', aboveMinor: askedAboveMinor(null, 'USD') };
  expect(usual.aboveMinor).toBe(25_000n);
  expect(askedAboveMinor(null, 'JPY')).toBe(250n);
  expect(askedAboveMinor(0n, 'USD')).toBe(0n);
  expect(asksToGiveBack({ minor: 25_000n, currency: 'USD' }, usual)).toBe(false);
  expect(asksToGiveBack({ minor: 25_001n, currency: 'USD' }, usual)).toBe(true);
  expect(asksToGiveBack({ minor: 1n, currency: 'EUR' }, usual)).toBe(true);
});

test('a recovery code is read however it is typed, and nothing else is', () => {
  fc.assert(
    fc.property(fc.uint8Array({ minLength: 10, maxLength: 10 }), (bytes) => {
      const code = recoveryCode(bytes);
      expect(code).toMatch(/^[0-9A-Z]{5}-[0-9A-Z]{5}$/);
      expect(readRecoveryCode(code)).toBe(code);
      const typed = ` ${code.toLowerCase().replace('-', ' ').replaceAll('0', 'o').replaceAll('1', 'l')}`;
      expect(readRecoveryCode(typed)).toBe(code);
      expect(readRecoveryCode(code.slice(1))).toBeNull();
    }),
  );
  expect(['', '123456', 'UUUUU-UUUUU', '00000-0000é'].map(readRecoveryCode)).toEqual([null, null, null, null]);
});

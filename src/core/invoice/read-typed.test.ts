import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { decimalText } from '../money/decimal';
import { typedMinor, typedShare } from './read-paper';

test('a sum written out and typed in again is the same sum, in every kind of currency', () => {
  fc.assert(
    fc.property(fc.bigInt({ min: 0n, max: 10n ** 12n }), fc.constantFrom(0, 2, 3), (minor, digits) => {
      expect(typedMinor(decimalText(minor, digits), digits)).toBe(minor);
    }),
  );
});

describe('what people type', () => {
  test.each([
    ['', 2, 0n],
    ['  ', 2, 0n],
    ['5', 2, 500n],
    ['5.1', 2, 510n],
    ['5,10', 2, 510n],
    [' 12.00 ', 2, 1200n],
    ['1000', 0, 1000n],
    ['1.005', 3, 1005n],
    ['ten', 2, null],
    ['5.005', 2, null],
    ['5.0.0', 2, null],
    ['1e3', 2, null],
    ['-5', 2, null],
    ['0x10', 2, null],
    ['٥', 2, null],
  ] as const)('%j with %i digits', (text, digits, minor) => {
    expect(typedMinor(text, digits)).toBe(minor);
  });

  test('is never read as a sum that is not written there: what is read, written out, is as long', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 8 }), (text) => {
        const minor = typedMinor(text, 2);
        if (minor !== null && text.trim() !== '') expect(text).toMatch(/\d/);
      }),
    );
  });
});

test('a share is a percent or an amount, nothing where nothing is typed, and never a guess', () => {
  expect(typedShare('10%', 2)).toEqual({ percent: '10' });
  expect(typedShare(' 7,5 % ', 2)).toEqual({ percent: '7.5' });
  expect(typedShare('5.00', 2)).toEqual({ amount: 500n });
  expect(typedShare('', 2)).toBeUndefined();
  for (const neither of ['%', 'x%', '10%%', '10 percent', '%10']) expect(typedShare(neither, 2)).toBeNull();
});

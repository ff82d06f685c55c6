import fc from 'fast-check';
import { expect, test } from 'vitest';
import { decimalText } from '../money/decimal';
import { reversals, split } from './split';

const terms = fc.record(
  {
    amount: fc.bigInt(0n, 10n ** 9n),
    fee: fc.bigInt(0n, 10n ** 6n),
    partners: fc.array(
      fc.integer({ min: 0, max: 250_000 }).map((rate) => ({ percent: decimalText(BigInt(rate), 4) })),
      { maxLength: 4 },
    ),
    keep: fc.bigInt(0n, 10n ** 9n),
    feeFrom: fc.constantFrom<'business' | 'all'>('business', 'all'),
  },
  { requiredKeys: ['amount', 'fee', 'partners', 'feeFrom'] },
);
const sum = (amounts: readonly bigint[]) => amounts.reduce((a, b) => a + b, 0n);

test('shares sum to the amount and fees to the fee, and no share is below 0', () => {
  fc.assert(
    fc.property(terms, (given) => {
      const parts = split(given);
      const all = [parts.business, ...parts.partners];
      expect(sum(all.map((part) => part.share))).toBe(given.amount);
      expect(sum(all.map((part) => part.fee))).toBe(given.fee);
      for (const part of all) {
        expect(part.share >= 0n).toBe(true);
        expect(part.net).toBe(part.share - part.fee);
      }
    }),
  );
});

test('a full refund in any steps takes back each share exactly', () => {
  fc.assert(
    fc.property(terms, fc.array(fc.integer({ min: 0, max: 100 }), { maxLength: 8 }), (given, wishes) => {
      const shares = split(given).partners.map(({ share }) => share);
      let left = given.amount;
      const refunds = wishes.map((wish) => {
        const step = (left * BigInt(wish)) / 100n;
        left -= step;
        return step;
      });
      const steps = reversals(given.amount, shares, [...refunds, left]);
      shares.forEach((share, at) => expect(sum(steps.map((step) => step.partners[at] ?? 0n))).toBe(share));
      steps.forEach((step, at) => expect(step.business + sum(step.partners)).toBe([...refunds, left][at]));
    }),
  );
});

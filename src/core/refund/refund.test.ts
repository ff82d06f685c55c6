import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { RuleError } from '../rule-error';
import { split } from '../share/split';
import { crediting } from '../tally/credit-steps';
import type { TallyDocument } from '../tally/document';
import { type Refundable, type RefundWish, refundableLeft, refundParts, taxOf } from './refund';

const DOCUMENT: TallyDocument = {
  currency: 'USD',
  pricesIncludeTax: false,
  lines: [
    { quantity: '5', unitPrice: '32', taxes: [] },
    { quantity: '2', unitPrice: '9', taxes: ['t'] },
  ],
  taxes: [{ id: 't', name: 'Sales tax', rate: '8.25', onDelivery: false }],
};
/** 160.00 + 18.00 + 1.49 tax, and a tip of 8.00 on top; the teacher has 60 % of all. */
const TOTAL = 17949n;
const PAID: Refundable = {
  amountMinor: TOTAL,
  tipMinor: 800n,
  feeMinor: 611n,
  refundedMinor: 0n,
  tipRefundedMinor: 0n,
  shares: [{ shareMinor: 10769n, feeMinor: 0n }],
};
const of = (more: { creditMinor?: bigint; owedAgain?: boolean } = {}) => ({
  crediting: crediting(DOCUMENT),
  creditMinor: 0n,
  owedAgain: false,
  ...more,
});

describe('what giving back takes', () => {
  test('two lessons and one rosin: their tax, the teacher’s part of it, the fee stays', () => {
    const parts = refundParts(PAID, of(), {
      by: 'lines',
      lines: [
        { index: 0, quantity: '2' },
        { index: 1, quantity: '1' },
      ],
      tip: false,
    });
    // 64.00 + 9.00 + 0.74 tax; 107.69 × 73.74 / 179.49 = 44.24.
    expect(parts).toMatchObject({ totalMinor: 7374n, tipMinor: 0n, partners: [4424n], feeBackMinor: 0n });
    expect(taxOf(parts.credited)).toBe(74n);
  });

  test('the tip alone credits nothing and takes nothing of a partner', () => {
    const parts = refundParts(PAID, of(), { by: 'lines', lines: [], tip: true });
    expect(parts).toMatchObject({ amountMinor: 0n, tipMinor: 800n, step: null, credited: null, partners: [0n] });
  });

  test('a void takes all with the tip, and brings the whole fee back', () => {
    expect(refundParts(PAID, of(), { by: 'void' })).toMatchObject({
      totalMinor: TOTAL + 800n,
      feeBackMinor: 611n,
      partners: [10769n],
      step: { all: true },
    });
  });

  test('what the customer has to their credit is not credited again; what shall be paid again is not credited at all', () => {
    const wish: RefundWish = { by: 'sum', amountMinor: 5000n };
    expect(refundParts(PAID, of({ creditMinor: 5000n }), wish)).toMatchObject({ step: null, totalMinor: 5000n });
    expect(refundParts(PAID, of({ creditMinor: 2000n }), wish)).toMatchObject({ step: { amount: 3000n } });
    expect(refundParts(PAID, of({ owedAgain: true }), wish)).toMatchObject({ step: null, totalMinor: 5000n });
  });

  test.each([
    ['nothing', { by: 'lines', lines: [], tip: false }],
    ['more than was paid', { by: 'sum', amountMinor: TOTAL + 801n }],
    ['more of a line than there is', { by: 'lines', lines: [{ index: 1, quantity: '3' }], tip: false }],
  ] as const)('%s is refused', (_, wish) => {
    expect(() => refundParts(PAID, of(), wish)).toThrow(RuleError);
  });
});

test('given back in whatever steps to the end: all of it, every share, the tip and the tax, and never more', () => {
  const percents = fc.array(fc.integer({ min: 0, max: 300_000 }), { maxLength: 3 });
  const sums = fc.array(fc.bigInt(1n, 9_000n), { maxLength: 6 });
  const cases = fc.record({ percents, sums, tip: fc.bigInt(0n, 3_000n), feeFrom: fc.constantFrom('business', 'all') });
  fc.assert(
    fc.property(cases, ({ percents: rates, sums: steps, tip, feeFrom }) => {
      const parts = split({
        amount: TOTAL,
        fee: 611n,
        partners: rates.map((scaled) => ({ percent: String(scaled / 10_000) })),
        feeFrom: feeFrom as 'business' | 'all',
      });
      let paid: Refundable = {
        ...PAID,
        tipMinor: tip,
        shares: parts.partners.map(({ share, fee }) => ({ shareMinor: share, feeMinor: fee })),
      };
      let document = crediting(DOCUMENT);
      const reversed = parts.partners.map(() => 0n);
      let tax = 0n;
      for (const wish of [
        ...steps.map((amountMinor) => ({ by: 'sum', amountMinor }) as const),
        { by: 'all' } as const,
      ]) {
        const left = refundableLeft(paid);
        if (left.amountMinor + left.tipMinor === 0n) break;
        if (wish.by === 'sum' && wish.amountMinor > left.amountMinor + left.tipMinor) continue;
        const taken = refundParts(paid, { crediting: document, creditMinor: 0n, owedAgain: false }, wish);
        if (taken.step) document = document.credit(taken.step).next;
        taken.partners.forEach((minor, at) => {
          reversed[at] = (reversed[at] ?? 0n) + minor;
        });
        tax += taxOf(taken.credited);
        paid = {
          ...paid,
          refundedMinor: paid.refundedMinor + taken.totalMinor,
          tipRefundedMinor: paid.tipRefundedMinor + taken.tipMinor,
        };
      }
      expect(paid.refundedMinor).toBe(TOTAL + tip);
      expect(document.left).toBe(0n);
      expect(tax).toBe(149n);
      expect(reversed).toEqual(parts.partners.map(({ share }) => share));
    }),
  );
});

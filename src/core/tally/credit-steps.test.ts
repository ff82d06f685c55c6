import fc from 'fast-check';
import { expect, test } from 'vitest';
import { decimalText } from '../money/decimal';
import { RuleError } from '../rule-error';
import { type Credited, type CreditStep, crediting } from './credit-steps';
import type { TallyDocument } from './document';
import { QUANTITY_SCALE, tally } from './tally';

const ids = ['a', 'b', 'c'];
const rate = fc.integer({ min: 0, max: 300_000 }).map((scaled) => decimalText(BigInt(scaled), 4));
const quantity = fc.bigInt({ min: 1n, max: 90_000n }).map((scaled) => decimalText(scaled, QUANTITY_SCALE));
const price = fc.bigInt({ min: 0n, max: 99_000_000n }).map((scaled) => decimalText(scaled, 6));
const some = fc.subarray(ids);

/** A document with everything a document can have. */
const documents: fc.Arbitrary<TallyDocument> = fc.record(
  {
    currency: fc.constantFrom('EUR', 'JPY', 'KWD'),
    pricesIncludeTax: fc.boolean(),
    lines: fc.array(
      fc.record(
        { quantity, unitPrice: price, taxes: some, discount: fc.record({ percent: rate }) },
        { requiredKeys: ['quantity', 'unitPrice', 'taxes'] },
      ),
      { minLength: 1, maxLength: 5 },
    ),
    discount: fc.record({ percent: rate }),
    delivery: fc.record({ amount: fc.bigInt(0n, 2_000n) }),
    fees: fc.array(fc.record({ amount: fc.bigInt(0n, 900n), taxes: some }), { maxLength: 2 }),
    taxes: fc
      .tuple(rate, rate, rate)
      .map((rates) => rates.map((one, at) => ({ id: ids[at] ?? '', name: 'T', rate: one, onDelivery: at === 0 }))),
    flatTaxes: fc.array(fc.record({ name: fc.constant('Stamp'), amount: fc.bigInt(0n, 200n) }), { maxLength: 2 }),
  },
  { requiredKeys: ['currency', 'pricesIncludeTax', 'lines', 'taxes'] },
);

/** What somebody may try; much of it is refused. */
const tries: fc.Arbitrary<CreditStep> = fc.oneof(
  fc.record(
    {
      lines: fc.uniqueArray(fc.record({ index: fc.nat(4), quantity }), {
        selector: ({ index }) => index,
        maxLength: 3,
      }),
      delivery: fc.boolean(),
      fees: fc.uniqueArray(fc.nat(1), { maxLength: 2 }),
      flatTaxes: fc.boolean(),
    },
    { requiredKeys: ['lines'] },
  ),
  fc.record({ amount: fc.bigInt(1n, 200_000n) }),
);

const sum = (amounts: readonly bigint[]) => amounts.reduce((a, b) => a + b, 0n);

test('credited in whatever steps, and then all: exactly the document’s nets, taxes, flat taxes and total', () => {
  fc.assert(
    fc.property(documents, fc.array(tries, { maxLength: 8 }), (document, steps) => {
      const whole = tally(document);
      let now = crediting(document);
      const done: Credited[] = [];
      for (const step of [...steps, { all: true } as const]) {
        try {
          const { credited, next } = now.credit(step);
          expect(credited.total).toBe(now.left - next.left);
          expect(credited.total >= 0n).toBe(true);
          done.push(credited);
          now = next;
        } catch (error) {
          // Refused, and nothing has changed.
          if (!(error instanceof RuleError)) throw error;
        }
      }
      expect(now.left).toBe(0n);
      expect(sum(done.map(({ total }) => total))).toBe(whole.total);
      for (const [at, tax] of whole.taxes.entries()) {
        expect(sum(done.map(({ taxes }) => taxes[at]?.amount ?? 0n))).toBe(tax.amount);
        expect(sum(done.map(({ taxes }) => taxes[at]?.base ?? 0n))).toBe(tax.base);
      }
      for (const [at, flat] of whole.flatTaxes.entries())
        expect(sum(done.map(({ flatTaxes }) => flatTaxes[at] ?? 0n))).toBe(flat.amount);
      if (now.way === 'sum') return;
      const lines = done.flatMap(({ lines: some }) => some);
      for (const [index, line] of whole.lines.entries()) {
        const own = lines.filter((one) => one.index === index);
        expect(sum(own.map(({ net }) => net))).toBe(line.net);
        expect(sum(own.map(({ apportioned }) => apportioned))).toBe(line.apportioned);
      }
    }),
    { numRuns: 400 },
  );
});

test('what was printed otherwise than it is counted is credited by sum, to the taxes that were printed', () => {
  const document: TallyDocument = {
    currency: 'EUR',
    pricesIncludeTax: false,
    lines: [{ quantity: '1', unitPrice: '10', taxes: ['a'] }],
    taxes: [{ id: 'a', name: 'T', rate: '19', onDelivery: false }],
  };
  const printed = { taxes: [{ id: 'a', base: 1000n, amount: 191n }], flatTaxes: [], total: 1191n };
  const now = crediting(document, printed);
  expect(now.mayByLines).toBe(false);
  expect(() => now.credit({ lines: [{ index: 0, quantity: '1' }] })).toThrow(RuleError);
  expect(now.credit({ all: true }).credited).toMatchObject({ total: 1191n, taxes: [{ amount: 191n }], lines: [] });
});

import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { TallyDocument } from './document';
import { percentOf, tally } from './tally';
import { working } from './working';

const decimal = (digits: number, most: number) =>
  fc.integer({ min: 1, max: most * 10 ** digits }).map((scaled) => {
    const text = scaled.toString().padStart(digits + 1, '0');
    return `${text.slice(0, -digits)}.${text.slice(-digits)}`;
  });
const TAXES = [
  { id: 'a', name: 'Sales tax', rate: '8.25', onDelivery: true },
  { id: 'b', name: 'Levy', rate: '1.5', onDelivery: false },
  { id: 'c', name: 'Zero', rate: '0', onDelivery: false },
];

/** Any document that the rules allow, with up to 30 lines. */
const documents = fc.record({
  currency: fc.constantFrom('USD', 'JPY', 'KWD'),
  pricesIncludeTax: fc.boolean(),
  lines: fc.array(
    fc.record({
      quantity: decimal(2, 40),
      unitPrice: decimal(3, 900),
      discount: fc.option(
        decimal(1, 100).map((percent) => ({ percent })),
        { nil: undefined },
      ),
      taxes: fc.subarray(['a', 'b', 'c']),
    }),
    { minLength: 1, maxLength: 30 },
  ),
  discount: fc.option(
    decimal(2, 100).map((percent) => ({ percent })),
    { nil: undefined },
  ),
  delivery: fc.option(fc.record({ amount: fc.bigInt(0n, 5000n) }), { nil: undefined }),
  taxes: fc.constant(TAXES),
  flatTaxes: fc.array(fc.record({ name: fc.constant('Stamp'), amount: fc.bigInt(0n, 300n) }), { maxLength: 2 }),
}) as fc.Arbitrary<TallyDocument>;

const sum = (amounts: readonly bigint[]) => amounts.reduce((a, b) => a + b, 0n);

describe('laws of every document', () => {
  test('the discount’s parts sum to the discount, and none is more than its line', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const worked = tally(document);
        expect(sum(worked.lines.map((line) => line.apportioned))).toBe(worked.documentDiscount);
        for (const line of worked.lines) expect(line.apportioned <= line.net && line.apportioned >= 0n).toBe(true);
      }),
    );
  });

  test('the total is what the printed figures add up to', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const worked = tally(document);
        const net = worked.subtotal - worked.lineDiscounts - worked.documentDiscount + worked.charges;
        const flat = sum(worked.flatTaxes.map((tax) => tax.amount));
        expect(worked.total).toBe(net + (document.pricesIncludeTax ? flat : worked.taxTotal));
        expect(worked.taxTotal).toBe(sum(worked.taxes.map((tax) => tax.amount)) + flat);
      }),
    );
  });

  test('with tax inside, bases and taxes of a one-tax document add up to what is paid', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const lines = document.lines.map((line) => ({ ...line, taxes: ['a'] }));
        const worked = tally({ ...document, lines, pricesIncludeTax: true, flatTaxes: [] });
        const [tax] = worked.taxes;
        expect((tax?.base ?? 0n) + (tax?.amount ?? 0n)).toBe(worked.total);
      }),
    );
  });

  test('an exempt document has the same prices and no tax', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const exempt = tally({ ...document, exempt: 'donation' });
        expect(exempt.taxTotal).toBe(0n);
        expect(exempt.total).toBe(exempt.subtotal - exempt.lineDiscounts - exempt.documentDiscount + exempt.charges);
      }),
    );
  });

  test('the tally of every figure ends with that figure, and its plus and minus steps lead there', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const worked = tally(document);
        const names = document.lines.map(() => '');
        const end = (figure: Parameters<typeof working>[3]) => {
          const { steps } = working(document, worked, names, figure);
          const last = steps.find((step) => step.kind === 'end')?.figure;
          return last && 'minor' in last ? last.minor : null;
        };
        expect(end({ of: 'total' })).toBe(worked.total);
        expect(end({ of: 'sum' })).toBe(worked.subtotal - worked.lineDiscounts);
        expect(end({ of: 'discount' })).toBe(worked.documentDiscount);
        worked.taxes.forEach((tax, at) => expect(end({ of: 'tax', at })).toBe(tax.amount));
        worked.lines.forEach((line, at) => expect(end({ of: 'line', at })).toBe(line.net));
        const signed = working(document, worked, names, { of: 'total' }).steps.filter((step) => step.kind !== 'end');
        const led = sum(
          signed.map(({ sign, figure }) => ('minor' in figure ? (sign === '−' ? -figure.minor : figure.minor) : 0n)),
        );
        expect(led).toBe(worked.total);
      }),
    );
  });
});

test('the tax of a real bill is taxed once and shows how', () => {
  // 3.5 × 72.00 = 252.00 and 2 × 64.50 = 129.00 taxed, 20.00 not; 10 % off 401.00 is 40.10, shared as 25.20, 12.90, 2.00.
  // Taxed: 226.80 + 116.10 = 342.90; × 8.25 % = 28.28925, rounded once to 28.29. Total 401.00 − 40.10 + 28.29 = 389.19.
  const document: TallyDocument = {
    currency: 'USD',
    pricesIncludeTax: false,
    lines: [
      { quantity: '3.5', unitPrice: '72.00', taxes: ['a'] },
      { quantity: '2', unitPrice: '64.50', taxes: ['a'] },
      { quantity: '1', unitPrice: '20.00' },
    ],
    discount: { percent: '10' },
    taxes: TAXES.slice(0, 1),
  };
  const worked = tally(document);
  expect(worked.lines.map((line) => line.apportioned)).toEqual([2520n, 1290n, 200n]);
  expect(worked.total).toBe(38_919n);
  const steps = working(document, worked, ['Bridge', 'Strings', 'Loan'], { of: 'tax', at: 0 });
  expect(steps.steps.map(({ figure }) => ('minor' in figure ? figure.minor : figure.exact))).toEqual([
    22_680n,
    11_610n,
    34_290n,
    '28.28925',
    2829n,
  ]);
  expect(steps.rules).toEqual(['Line 3 does not name this tax.']);
});

test('a half goes away from zero', () => {
  expect(percentOf(50n, '5', 'p')).toBe(3n); // 2.5
  expect(percentOf(49n, '5', 'p')).toBe(2n); // 2.45
});

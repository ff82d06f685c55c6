import fc from 'fast-check';
import { expect, test } from 'vitest';
import { partsOfPayment } from '../share/split';
import { isSameFigure, type PaymentFigure, paymentTally, type TalliedPayment } from './payment-tally';

const minor = fc.bigInt(0n, 10n ** 9n);
const payment: fc.Arbitrary<TalliedPayment> = fc.record({
  called: fc.constant('Invoice 12'),
  amountMinor: minor,
  tipMinor: minor,
  feeMinor: minor,
  refundedMinor: minor,
  taxes: fc.array(fc.record({ name: fc.string(), rate: fc.constant('8.25'), minor }), { maxLength: 3 }),
  shares: fc.array(fc.record({ name: fc.string(), shareMinor: minor, feeMinor: minor, reversedMinor: minor }), {
    maxLength: 3,
  }),
  returned: fc.option(fc.record({ takenMinor: minor, feeMinor: minor })),
  dispute: fc.option(fc.record({ takenMinor: minor, feeMinor: minor })),
  agreed: fc.option(fc.record({ percent: fc.constantFrom('0', '2.9', '1.4567'), fixedMinor: minor })),
});

test('every tally adds up to the figure that stands on the sheet', () => {
  fc.assert(
    fc.property(payment, (given) => {
      const sum = (figure: PaymentFigure) => paymentTally(given, figure).reduce((all, line) => all + line.minor, 0n);
      const { partners, ownMinor } = partsOfPayment(given, given.shares);
      const { takenMinor = 0n, feeMinor = 0n } = given.dispute ?? {};
      expect(sum({ of: 'paid' })).toBe(given.amountMinor + given.tipMinor);
      expect(sum({ of: 'tax' })).toBe(given.taxes.reduce((all, tax) => all + tax.minor, 0n));
      expect(sum({ of: 'fee' })).toBe(-given.feeMinor);
      for (const [at, part] of partners.entries()) expect(sum({ of: 'part', at })).toBe(-part);
      expect(sum({ of: 'left' })).toBe(ownMinor - takenMinor - feeMinor - (given.returned?.feeMinor ?? 0n));
    }),
  );
});

test('one partner’s figure is not another’s', () => {
  expect(isSameFigure({ of: 'part', at: 1 }, { of: 'part', at: 1 })).toBe(true);
  expect(isSameFigure({ of: 'part', at: 1 }, { of: 'part', at: 0 })).toBe(false);
  expect(isSameFigure({ of: 'fee' }, { of: 'fee' })).toBe(true);
  expect(isSameFigure(null, { of: 'fee' })).toBe(false);
});

import type { OrderSums } from '../ledger/movements';
import { roundedQuotient } from '../money/decimal';

/**
 * What of an order is given back by one refund: the whole before the tip, the tax in proportion to what was given back of the
 * total in all, so that a full refund in any steps gives back each exactly (in analogy to `calculation.md` 10).
 *
 * @param beforeMinor given back before @param moreMinor given back now; both together at most the total and the tip
 */
export function refundParts(sums: OrderSums, beforeMinor: bigint, moreMinor: bigint): OrderSums {
  const ofTotal = (given: bigint) => (given < sums.totalMinor ? given : sums.totalMinor);
  const tax = (total: bigint) =>
    sums.totalMinor === 0n ? 0n : roundedQuotient(sums.taxMinor * total, sums.totalMinor);
  const [before, after] = [ofTotal(beforeMinor), ofTotal(beforeMinor + moreMinor)];
  return {
    totalMinor: after - before,
    taxMinor: tax(after) - tax(before),
    tipMinor: moreMinor - (after - before),
  };
}

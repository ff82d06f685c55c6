import { RuleError } from '../rule-error';
import type { Currency } from './currency';
import { minorDigits } from './currency';

/** An amount as a count of the currency's minor unit: 12.50 USD is `{ minor: 1250n, currency: 'USD' }`. */
export type Money = { readonly minor: bigint; readonly currency: Currency };

const GREATEST = BigInt(Number.MAX_SAFE_INTEGER);

/** Returns `minor` where it is within ±(2^53 − 1). @throws RuleError `amount_out_of_range` */
export function inRange(minor: bigint): bigint {
  if (minor > GREATEST || minor < -GREATEST) {
    throw new RuleError('amount_out_of_range', 'An amount lies outside ±(2^53 − 1) minor units');
  }
  return minor;
}

/** @throws RuleError `bad_currency`, `amount_out_of_range` */
export function money(minor: bigint, currency: Currency): Money {
  minorDigits(currency);
  return { minor: inRange(minor), currency };
}

/** An amount at a JSON border: a safe integer of minor units. @throws RuleError `amount_out_of_range` */
export const jsonMinor = (minor: bigint): number => Number(inRange(minor));

/**
 * Splits `whole` (minor units, ≥ 0) by weight, largest remainder first (ties: the earlier part), so that the parts
 * sum to the whole. Only where all weights are 0 every part is 0 (`calculation.md` 3): the caller keeps the whole.
 */
export function allocate(whole: bigint, weights: readonly bigint[]): bigint[] {
  let sum = 0n;
  for (const weight of weights) sum += weight;
  if (sum === 0n || whole === 0n) return weights.map(() => 0n);
  let left = whole;
  const remainders: bigint[] = [];
  const parts = weights.map((weight) => {
    const share = whole * weight;
    const floor = share / sum;
    remainders.push(share - floor * sum);
    left -= floor;
    return floor;
  });
  if (left === 0n) return parts;
  // Remainders lie below the sum: as numbers they are exact up to 2^53, and sort much faster.
  const keys: readonly (number | bigint)[] = sum <= GREATEST ? remainders.map(Number) : remainders;
  const order = parts
    .map((_, at) => at)
    .sort((a, b) => {
      const [one, other] = [keys[a] ?? 0, keys[b] ?? 0];
      return one === other ? a - b : one > other ? -1 : 1;
    });
  for (const at of order.slice(0, Number(left))) parts[at] = (parts[at] ?? 0n) + 1n;
  return parts;
}

/** The smaller of two sums in minor units. */
export const leastOf = (one: bigint, other: bigint): bigint => (other < one ? other : one);

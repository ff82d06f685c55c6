import { minorDigits } from '../money/currency';
import { powerOfTen, roundedQuotient, scaledDecimal } from '../money/decimal';
import { type Change, type EInvoice, type EInvoiceLine, groupKey, sum, type Taxed, type TaxGroup } from './einvoice';

const scaledRate = (rate: string): bigint => scaledDecimal(rate || '0', 4, 'bad_rate', 'rate');

/** `rate` percent of a base, rounded half away from zero to the minor unit. */
export const taxOn = (base: bigint, rate: string): bigint => roundedQuotient(base * scaledRate(rate), 1_000_000n);

/** A sum that holds its tax at a rate, without it, rounded as for prices with tax inside (`calculation.md` 5); minor units. */
export const withoutTaxOf = (minor: bigint, rate: string): bigint =>
  roundedQuotient(minor * 1_000_000n, 1_000_000n + scaledRate(rate));

/** Quantity × price, rounded to the minor unit. */
export const grossOf = (quantity: string, price: string, currency: string): bigint =>
  roundedQuotient(
    scaledDecimal(quantity, 4, 'bad_quantity', 'quantity') * scaledDecimal(price, 6, 'bad_price', 'price'),
    powerOfTen(10 - minorDigits(currency)),
  );

/** An amount shared out by weights: floors, then the rest by one each to the largest remainders. Minor units, weights ≥ 0. */
export function shared(amount: bigint, weights: readonly bigint[]): bigint[] {
  const whole = sum(weights);
  if (amount === 0n || whole === 0n) return weights.map(() => 0n);
  const parts = weights.map((weight, at) => ({
    at,
    floor: (amount * weight) / whole,
    rest: (amount * weight) % whole,
  }));
  const left = Number(amount - sum(parts.map(({ floor }) => floor)));
  const more = new Set(
    [...parts]
      .sort((a, b) => (a.rest === b.rest ? a.at - b.at : a.rest > b.rest ? -1 : 1))
      .slice(0, left)
      .map(({ at }) => at),
  );
  return parts.map(({ floor, at }) => floor + (more.has(at) ? 1n : 0n));
}

/** What the sums of an e-invoice are worked out from; `asked` and `paid` in minor units. */
export type Parts = {
  readonly lines: readonly EInvoiceLine[];
  readonly allowances: readonly Change[];
  readonly charges: readonly Change[];
  /** Why a category takes no tax, in words and by code. */
  readonly whyOf: (category: Taxed['category']) => { readonly reason: string; readonly reasonCode: string };
  /** What the document comes to for whoever gets it. */
  readonly asked: bigint;
  readonly paid: bigint;
};

type Sums = Pick<
  EInvoice,
  | 'groups'
  | 'sumOfLines'
  | 'allowanceTotal'
  | 'chargeTotal'
  | 'withoutTax'
  | 'taxTotal'
  | 'withTax'
  | 'paid'
  | 'rounding'
  | 'due'
>;

/**
 * The sums as the standard works them out: one tax for each category and rate, from its rounded base. Where several taxes meet
 * on a line, or prices hold the tax, that may be a unit away from what is asked for; the difference is the rounding (BT-114).
 */
export function sumsOf({ lines, allowances, charges, whyOf, asked, paid }: Parts): Sums {
  const kinds = new Map([...lines, ...allowances, ...charges].map((one): [string, Taxed] => [groupKey(one), one]));
  const groups = [...kinds].map(([key, { category, rate }]): TaxGroup => {
    const own = <T extends Taxed>(list: readonly T[]) => list.filter((one) => groupKey(one) === key);
    const base =
      sum(own(lines).map(({ net }) => net)) -
      sum(own(allowances).map(({ amount }) => amount)) +
      sum(own(charges).map(({ amount }) => amount));
    return { category, rate, base, amount: taxOn(base, rate), ...whyOf(category) };
  });
  const sumOfLines = sum(lines.map(({ net }) => net));
  const allowanceTotal = sum(allowances.map(({ amount }) => amount));
  const chargeTotal = sum(charges.map(({ amount }) => amount));
  const withoutTax = sumOfLines - allowanceTotal + chargeTotal;
  const taxTotal = sum(groups.map(({ amount }) => amount));
  const withTax = withoutTax + taxTotal;
  const rounding = asked - withTax;
  return {
    groups,
    sumOfLines,
    allowanceTotal,
    chargeTotal,
    withoutTax,
    taxTotal,
    withTax,
    paid,
    rounding,
    due: withTax - paid + rounding,
  };
}

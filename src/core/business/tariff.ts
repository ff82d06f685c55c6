import { leastOf } from '../money/money';
import { ACCOUNT_SCHEME } from '../payment/outcome';
import { percentOf } from '../tally/tally';

/** What is agreed with the card processor: percent of the sum, and a fixed amount in minor units of the currency. */
export type TariffLine = {
  /** ISO 4217. */
  readonly currency: string;
  /** A card scheme's name, or `ACCOUNT_SCHEME` for bank debits; empty for all cards that have no line of their own. */
  readonly scheme: string;
  /** A decimal string, 0 to 100. */
  readonly percent: string;
  readonly fixedMinor: number;
};

export type Tariff = readonly TariffLine[];

/** A card sale, the tip in its amount; minor units. */
export type TariffedSale = { readonly currency: string; readonly scheme: string; readonly amountMinor: bigint };

/**
 * The fee that is agreed for a sale: round(amount × percent / 100) + the fixed amount, at most the sale, in minor units. A scheme's own
 * line goes before the one for all. Null where nothing is agreed for the currency.
 *
 * @throws RuleError `bad_rate`
 */
export function agreedFee(tariff: Tariff, { currency, scheme, amountMinor }: TariffedSale): bigint | null {
  const lines = tariff.filter((line) => line.currency === currency);
  const own = lines.find((one) => one.scheme === scheme);
  // What is agreed for all cards says nothing of bank debits.
  const line = own ?? (scheme === ACCOUNT_SCHEME ? undefined : lines.find((one) => one.scheme === ''));
  if (!line) return null;
  return leastOf(amountMinor, percentOf(amountMinor, line.percent, 'percent') + BigInt(line.fixedMinor));
}

/** The same of a payment with its tip, by the card that paid it. */
export const agreedFeeOf = (
  { tariff }: { readonly tariff: Tariff },
  payment: { readonly currency: string; readonly amountMinor: bigint; readonly tipMinor: bigint },
  { scheme }: { readonly scheme: string },
): bigint | null =>
  agreedFee(tariff, { currency: payment.currency, scheme, amountMinor: payment.amountMinor + payment.tipMinor });

/** A line in words: `2.9 % + 0.30`. @param fixed the fixed amount as it is written */
export const tariffText = ({ percent }: Pick<TariffLine, 'percent'>, fixed: string): string =>
  `${percent} % + ${fixed}`;

/** How much more (below 0: less) than agreed fees came to, by currency, in minor units; only where something differs. */
export function feesBeyond(
  sales: readonly { readonly currency: string; readonly feeMinor: bigint; readonly agreedFeeMinor: bigint | null }[],
): { readonly currency: string; readonly moreMinor: bigint; readonly count: number }[] {
  const differing = sales.filter(
    ({ feeMinor, agreedFeeMinor }) => agreedFeeMinor !== null && agreedFeeMinor !== feeMinor,
  );
  return [...new Set(differing.map(({ currency }) => currency))].map((currency) => {
    const own = differing.filter((sale) => sale.currency === currency);
    const moreMinor = own.reduce((sum, { feeMinor, agreedFeeMinor }) => sum + feeMinor - (agreedFeeMinor ?? 0n), 0n);
    return { currency, moreMinor, count: own.length };
  });
}

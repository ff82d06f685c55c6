import { converted } from '../money/convert';
import { minorDigits } from '../money/currency';
import { decimalText, powerOfTen, roundedQuotient, scaledDecimal } from '../money/decimal';
import { typedDecimal } from '../money/typed';
import type { PriceTable } from './offer';

/** What one main unit of an offer's currency is worth in another, as a decimal; null where no rate is known. */
export type RateTo = (currency: string) => string | null;

/** A typed price in minor units, rounded; null where it is none. */
export function priceMinor(price: string | undefined, currency: string): bigint | null {
  const number = typedDecimal(price ?? '');
  if (number === null) return null;
  const digits = minorDigits(currency);
  const fraction = number.split('.')[1]?.length ?? 0;
  const scale = Math.max(digits, fraction);
  return roundedQuotient(scaledDecimal(number, scale, 'bad_price', 'price'), powerOfTen(scale - digits));
}

/**
 * A price in a currency as a plain decimal: the one given for it, else the one in the offer's own currency converted
 * at the day's rate (`calculation.md` 13). Null where there is neither a price nor a rate.
 *
 * @param base the offer's own currency
 */
export function priceIn(prices: PriceTable, currency: string, base: string, rateTo: RateTo): string | null {
  const own = typedDecimal(prices[currency] ?? '');
  if (own !== null) return own;
  const minor = currency === base ? null : priceMinor(prices[base], base);
  const rate = minor === null ? null : rateTo(currency);
  if (minor === null || rate === null) return null;
  return decimalText(converted({ minor, currency: base }, currency, rate).minor, minorDigits(currency));
}

/**
 * What is earned on one piece: the price less the cost, in minor units, and its share of the price in percent, rounded down. Null where one
 * of them cannot be read, or the price is nothing.
 */
export function margin(
  price: string | undefined,
  cost: string | undefined,
  currency: string,
): { minor: bigint; percent: number } | null {
  const [of, less] = [priceMinor(price, currency), priceMinor(cost, currency)];
  if (of === null || less === null || of <= 0n) return null;
  return { minor: of - less, percent: Math.floor((Number(of - less) * 100) / Number(of)) };
}

import { decimalText, scaledDecimal } from '../money/decimal';
import { typedDecimal } from '../money/typed';

const SCALE = 4;

/** A count with its sign as an integer scaled by 10^4. @throws RuleError `bad_quantity` */
export const scaledCount = (text: string): bigint =>
  text.startsWith('-')
    ? -scaledDecimal(text.slice(1), SCALE, 'bad_quantity', 'stock')
    : scaledDecimal(text, SCALE, 'bad_quantity', 'stock');

/** A scaled count as a decimal. */
export const countText = (count: bigint): string => decimalText(count, SCALE);

/** What can still be promised: on hand less promised; may fall below zero. Decimal strings. */
export const available = (onHand: string, promised: string): string =>
  countText(scaledCount(onHand) - scaledCount(promised));

/** A line that asks for stock; `key` names item and option, `quantity` is as typed. */
export type StockWish = { readonly line: string; readonly key: string; readonly quantity: string };

/**
 * The lines that ask for more than there is, with how much is available; several lines of one item are counted together.
 * Quantities that cannot be read ask for nothing yet.
 *
 * @param stock what is available by key; a key that is absent keeps no stock
 */
export function shortages(wishes: readonly StockWish[], stock: ReadonlyMap<string, string>): Map<string, string> {
  const asked = new Map<string, bigint>();
  for (const { key, quantity } of wishes) {
    const number = typedDecimal(quantity);
    if (number === null || (number.split('.')[1]?.length ?? 0) > SCALE) continue;
    asked.set(key, (asked.get(key) ?? 0n) + scaledCount(number));
  }
  const short = new Map<string, string>();
  for (const { line, key } of wishes) {
    const there = stock.get(key);
    if (there !== undefined && (asked.get(key) ?? 0n) > scaledCount(there)) short.set(line, there);
  }
  return short;
}

/** Whether the stock on hand has fallen to its mark or below. */
export const isLow = ({ onHand, lowAt }: { onHand: string | null; lowAt: string | null }): boolean =>
  onHand !== null && lowAt !== null && scaledCount(onHand) <= scaledCount(lowAt);

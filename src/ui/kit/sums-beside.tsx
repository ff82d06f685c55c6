import { type Money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';

/** Sums in other currencies than the business's own, beside the main one; nothing where there are none. */
export function SumsBeside({ sums, locale }: { sums: readonly Money[]; locale: string }) {
  if (sums.length === 0) return null;
  return <span className="private"> + {sums.map((sum) => moneyText(sum, locale)).join(' + ')}</span>;
}

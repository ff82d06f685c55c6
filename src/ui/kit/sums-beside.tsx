import { type Money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';

/** Sums in other currencies than the business's own, beside the main one; nothing where there are none. */
export function SumsBeside({ sums, locale }: { sums: readonly Money[]; locale: string }) {
  if (sums.length === 0) return null;
  return (
    <>
      {sums.map((sum) => (
        <span key={sum.currency} className="private whitespace-nowrap">
          {' '}
          + {moneyText(sum, locale)}
        </span>
      ))}
    </>
  );
}

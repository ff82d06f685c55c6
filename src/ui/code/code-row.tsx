import { money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import { Button } from '../kit/button';
import type { ShownCode } from './shown-code';

/** One code: what it takes off, when it counts, how often it was used and what came of it. */
export function CodeRow({
  code,
  currency,
  locale,
  actions,
}: {
  code: ShownCode;
  /** The business's own: its sums stand without a sign. */
  currency: string;
  locale: string;
  /** None for who may only read. */
  actions: { readonly change: () => void; readonly remove: () => void } | null;
}) {
  const text = (minor: number, of: string) => moneyText(money(BigInt(minor), of), locale);
  return (
    <tr className="border-b border-rule align-baseline">
      <td className="py-2 pr-3">
        <span className="font-serif text-[16.5px] font-medium">{code.code}</span>
        {code.note ? <span className="block text-[12.5px] text-soft">{code.note}</span> : null}
      </td>
      <td className="py-2 pr-3">
        {code.percent !== null ? `${code.percent} %` : text(code.amountMinor ?? 0, code.currency)}
        {code.itemIds.length > 0 ? <span className="block text-[12.5px] text-soft">only some items</span> : null}
      </td>
      <td className="py-2 pr-3">
        {[
          code.from ? `from ${code.from}` : '',
          code.to ? `to ${code.to}` : '',
          code.leastMinor > 0 ? `from ${text(code.leastMinor, code.currency)} on` : '',
          code.mostEach !== null ? `${code.mostEach} each` : '',
        ]
          .filter(Boolean)
          .join(', ') || 'always'}
      </td>
      <td className="whitespace-nowrap py-2 text-right">
        {code.uses}
        {code.mostUses === null ? '' : ` of ${code.mostUses}`}
      </td>
      <td className="whitespace-nowrap py-2 pl-4 text-right font-serif text-[15px]">
        {code.sums.map((sum) => (
          <span key={sum.currency} className="private block">
            {sum.currency === currency
              ? figureText(money(BigInt(sum.discountMinor), sum.currency), locale)
              : text(sum.discountMinor, sum.currency)}
          </span>
        ))}
      </td>
      <td className="whitespace-nowrap py-2 pl-4 text-right font-serif text-[15px]">
        {code.sums.map((sum) => (
          <span key={sum.currency} className="private block">
            {sum.currency === currency
              ? figureText(money(BigInt(sum.paidMinor), sum.currency), locale)
              : text(sum.paidMinor, sum.currency)}
          </span>
        ))}
      </td>
      <td className="whitespace-nowrap py-2 pl-4 text-right">
        {actions ? (
          <span className="inline-flex gap-4">
            <Button look="small-link" aria-label={`Edit ${code.code}`} onClick={actions.change}>
              Edit
            </Button>
            <Button look="small-link" onClick={actions.remove}>
              Remove
            </Button>
          </span>
        ) : null}
      </td>
    </tr>
  );
}

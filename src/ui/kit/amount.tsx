import { type Money, money } from '@/core/money/money';
import { currencySign, figureText } from '@/core/money/money-text';

/** A bare figure, as columns carry it. `minor` in minor units. */
export function Figure({ minor, currency, locale }: { minor: bigint | number; currency: string; locale: string }) {
  return <span className="private whitespace-nowrap">{figureText(money(BigInt(minor), currency), locale)}</span>;
}

/** A leading figure with its small currency sign, placed as the locale has it. */
export function Amount({ minor, currency, locale }: { minor: bigint | number; currency: string; locale: string }) {
  const amount: Money = money(BigInt(minor), currency);
  const { sign, leads } = currencySign(currency, locale);
  const mark = <span className="text-[.72em] font-normal text-soft">{sign}</span>;
  return (
    <span className="private whitespace-nowrap">
      {leads ? <>{mark}&#8239;</> : null}
      {figureText(amount, locale)}
      {leads ? null : <>&#8239;{mark}</>}
    </span>
  );
}

'use client';
import type { PriceTable } from '@/core/offer/offer';
import { MoneyField } from '../kit/money-field';

/** One thing's prices, a field a currency; what is left open in a further currency is converted at the day's rate. */
export function PriceFields({
  label,
  prices,
  currencies,
  path,
  troubles,
  hint,
  onChange,
}: {
  label: string;
  prices: PriceTable;
  /** The offer's own first. */
  currencies: readonly string[];
  path: string;
  troubles: Readonly<Record<string, string>>;
  hint?: string;
  onChange: (prices: PriceTable) => void;
}) {
  return (
    <div className="flex flex-wrap items-start gap-3">
      {currencies.map((code, at) => (
        <MoneyField
          key={code}
          label={`${label}, ${code}`}
          currency={code}
          className="w-[132px]"
          maxLength={40}
          placeholder={at === 0 ? '' : 'by the rate'}
          value={prices[code] ?? ''}
          error={troubles[`${path}.${code}`]}
          hint={at === 0 ? hint : undefined}
          onChange={(event) => {
            const { [code]: _, ...rest } = prices;
            onChange(event.target.value.trim() ? { ...rest, [code]: event.target.value } : rest);
          }}
        />
      ))}
    </div>
  );
}

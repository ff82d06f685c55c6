'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { MoneyField } from '../kit/money-field';

/** Prices in one currency or several: the business's own first. */
export function ItemPrices({
  prices,
  currency,
  label,
  onChange,
}: {
  prices: Readonly<Record<string, string>>;
  currency: string;
  label: string;
  onChange: (prices: Record<string, string>) => void;
}) {
  const [adding, setAdding] = useState('');
  const codes = [...new Set([currency, ...Object.keys(prices)])];
  const set = (code: string, price: string) => {
    const { [code]: _, ...rest } = prices;
    onChange(price.trim() || code !== currency ? { ...rest, [code]: price } : rest);
  };
  return (
    <div className="flex flex-wrap items-end gap-3">
      {codes.map((code) => (
        <MoneyField
          key={code}
          label={`${label} in ${code}`}
          currency={code}
          className="w-[128px]"
          value={prices[code] ?? ''}
          onChange={(event) => set(code, event.target.value)}
        />
      ))}
      <span className="flex items-end gap-1">
        <input
          aria-label="Another currency"
          placeholder="EUR"
          maxLength={3}
          className="input !w-[64px]"
          value={adding}
          onChange={(event) => setAdding(event.target.value.toUpperCase())}
        />
        <Button
          disabled={!/^[A-Z]{3}$/.test(adding) || codes.includes(adding)}
          onClick={() => {
            onChange({ ...prices, [adding]: '' });
            setAdding('');
          }}
        >
          Add currency
        </Button>
      </span>
    </div>
  );
}

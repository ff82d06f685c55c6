'use client';
import { currencySign } from '@/core/money/money-text';
import { useDeskLocale } from './at-desk';
import { type Around, Labelled } from './field';
import { NumberInput, type NumberProps } from './number-input';

/** A sum of money: the currency's sign stands still, the figure is right-aligned. */
export function MoneyField({
  label,
  currency,
  error,
  hint,
  className,
  ...input
}: NumberProps & Around & { currency: string }) {
  const { sign } = currencySign(currency, useDeskLocale());
  return (
    <Labelled label={label} error={error} hint={hint} className={className}>
      {(tied) => (
        <span className="relative block">
          <span className="small pointer-events-none absolute left-2.5 top-2 text-soft" aria-hidden="true">
            {sign}
          </span>
          <NumberInput
            autoComplete="off"
            className="input pl-8 text-right font-serif text-[16px]"
            {...tied}
            {...input}
          />
        </span>
      )}
    </Labelled>
  );
}

'use client';
import { type InputHTMLAttributes, useId } from 'react';
import { FieldError } from './field';

type Props = InputHTMLAttributes<HTMLInputElement> & { label: string; sign: string; error?: string };

/** A sum of money: the sign stands still, the figure is right-aligned. What was typed stays as typed. */
export function MoneyField({ label, sign, error, ...input }: Props) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="label mb-1">
        {label}
      </label>
      <div className="relative">
        <span className="small pointer-events-none absolute left-2.5 top-2 text-soft" aria-hidden="true">
          {sign}
        </span>
        <input
          id={id}
          inputMode="decimal"
          autoComplete="off"
          className="input text-right font-serif text-[16px]"
          aria-invalid={error ? true : undefined}
          aria-describedby={error ? `${id}-more` : undefined}
          {...input}
        />
      </div>
      {error ? <FieldError id={`${id}-more`}>{error}</FieldError> : null}
    </div>
  );
}

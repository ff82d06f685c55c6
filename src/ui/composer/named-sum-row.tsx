'use client';
import type { ReactNode } from 'react';
import { FieldError } from '../kit/field';
import { Leader } from '../kit/leader';
import { NumberInput } from '../kit/number-input';
import { SMALL_BLANK, Without } from './without';

type Row = { readonly id: string; readonly name: string; readonly amount: string };

/** A row of the sums with a name and an amount of its own: a fee, a flat tax. */
export function NamedSumRow({
  row,
  called,
  nameOf,
  placeholder,
  troubles,
  set,
  onDrop,
  children,
}: {
  row: Row;
  /** What the row is, in its fields' names, and short where it is taken away. */
  called: { readonly field: string; readonly short: string };
  /** What its name is asked by: `what it is`, `its name`. */
  nameOf: string;
  placeholder: string;
  troubles: readonly string[];
  set: (part: { name: string } | { amount: string }) => void;
  onDrop: () => void;
  /** What more belongs to it. */
  children?: ReactNode;
}) {
  return (
    <div>
      <Leader
        label={
          <span className="inline-flex items-baseline gap-1">
            <input
              data-field={`${row.id}.name`}
              aria-label={`${called.field}: ${nameOf}`}
              placeholder={placeholder}
              className="blank !w-[124px] !text-[15.5px]/[21px]"
              maxLength={120}
              value={row.name}
              onChange={(event) => set({ name: event.target.value })}
            />
            <Without name={called.short} onDrop={onDrop} />
          </span>
        }
      >
        <NumberInput
          data-field={`${row.id}.amount`}
          aria-label={`${called.field}: how much`}
          placeholder="0.00"
          className={SMALL_BLANK}
          value={row.amount}
          onChange={(event) => set({ amount: event.target.value })}
        />
      </Leader>
      {children}
      {troubles.map((words) => (
        <FieldError key={words}>{words}</FieldError>
      ))}
    </div>
  );
}

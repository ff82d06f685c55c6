'use client';
import type { Paper } from '@/core/paper/paper';
import { FieldError } from '../kit/field';
import { Leader } from '../kit/leader';
import { SMALL_BLANK, Without } from './without';

type FlatTax = Paper['flatTaxes'][number];

/** A tax of a fixed sum. */
export function FlatTaxRow({
  tax,
  troubles,
  set,
  onDrop,
}: {
  tax: FlatTax;
  troubles: readonly string[];
  set: (part: Partial<FlatTax>) => void;
  onDrop: () => void;
}) {
  return (
    <div>
      <Leader
        label={
          <span className="inline-flex items-baseline gap-1">
            <input
              data-field={`${tax.id}.name`}
              aria-label="Flat tax: its name"
              placeholder="A flat tax"
              className="blank !w-[124px] !text-[15.5px]/[21px]"
              maxLength={120}
              value={tax.name}
              onChange={(event) => set({ name: event.target.value })}
            />
            <Without name="this tax" onDrop={onDrop} />
          </span>
        }
      >
        <input
          data-field={`${tax.id}.amount`}
          aria-label="Flat tax: how much"
          placeholder="0.00"
          className={SMALL_BLANK}
          value={tax.amount}
          onChange={(event) => set({ amount: event.target.value })}
        />
      </Leader>
      {troubles.map((words) => (
        <FieldError key={words}>{words}</FieldError>
      ))}
    </div>
  );
}

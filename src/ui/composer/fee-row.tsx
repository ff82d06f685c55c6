'use client';
import type { Paper } from '@/core/paper/paper';
import type { BusinessTax } from '@/core/tax/business-tax';
import { FieldError } from '../kit/field';
import { Leader } from '../kit/leader';
import { Select } from '../kit/select';
import { SMALL_BLANK, Without } from './without';

type Fee = Paper['fees'][number];

/** A fee on the invoice, with its tax. */
export function FeeRow({
  fee,
  taxes,
  troubles,
  set,
  onDrop,
}: {
  fee: Fee;
  taxes: readonly BusinessTax[];
  troubles: readonly string[];
  set: (part: Partial<Fee>) => void;
  onDrop: () => void;
}) {
  return (
    <div>
      <Leader
        label={
          <span className="inline-flex items-baseline gap-1">
            <input
              data-field={`${fee.id}.name`}
              aria-label="Fee: what it is"
              placeholder="A fee"
              className="blank !w-[124px] !text-[15.5px]/[21px]"
              maxLength={120}
              value={fee.name}
              onChange={(event) => set({ name: event.target.value })}
            />
            <Without name="this fee" onDrop={onDrop} />
          </span>
        }
      >
        <input
          data-field={`${fee.id}.amount`}
          aria-label="Fee: how much"
          placeholder="0.00"
          className={SMALL_BLANK}
          value={fee.amount}
          onChange={(event) => set({ amount: event.target.value })}
        />
      </Leader>
      <Select
        look="blank"
        aria-label="Tax on this fee"
        className="small !w-auto !py-0 !font-sans !text-[12.5px] text-soft"
        value={fee.taxes[0] ?? ''}
        onChange={(event) => set({ taxes: event.target.value ? [event.target.value] : [] })}
      >
        <option value="">No tax on it</option>
        {taxes
          .filter((tax) => !tax.retired || fee.taxes.includes(tax.id))
          .map((tax) => (
            <option key={tax.id} value={tax.id}>
              {tax.name}, {tax.rate} %
            </option>
          ))}
      </Select>
      {troubles.map((words) => (
        <FieldError key={words}>{words}</FieldError>
      ))}
    </div>
  );
}

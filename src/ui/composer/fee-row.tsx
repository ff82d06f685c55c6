'use client';
import type { Paper } from '@/core/paper/paper';
import type { BusinessTax } from '@/core/tax/business-tax';
import { Select } from '../kit/select';
import { NamedSumRow } from './named-sum-row';

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
    <NamedSumRow
      row={fee}
      called={{ field: 'Fee', short: 'this fee' }}
      nameOf="what it is"
      placeholder="A fee"
      troubles={troubles}
      set={set}
      onDrop={onDrop}
    >
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
    </NamedSumRow>
  );
}

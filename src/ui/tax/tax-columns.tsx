'use client';
import type { BusinessTax } from '@/core/tax/business-tax';
import { Check } from '../kit/check';
import type { Column } from '../kit/editable-table';
import { FieldError } from '../kit/field';
import { NumberInput } from '../kit/number-input';

/** A rule while it is written: its lists as lists, empty for all. */
export type TypedTax = Omit<BusinessTax, 'regions' | 'postalCodes'> & {
  readonly regions: readonly string[];
  readonly postalCodes: readonly string[];
};

export const typedTax = ({ regions = [], postalCodes = [], ...rest }: BusinessTax): TypedTax => ({
  ...rest,
  regions,
  postalCodes,
});

/** The rule as it counts: an empty list is none. */
export const taxTyped = ({ regions, postalCodes, ...rest }: TypedTax): BusinessTax => ({
  ...rest,
  ...(regions.length > 0 ? { regions: [...regions] } : {}),
  ...(postalCodes.length > 0 ? { postalCodes: [...postalCodes] } : {}),
});

const listed = (text: string): string[] =>
  text
    .toUpperCase()
    .split(/[\s,;]+/)
    .filter(Boolean);

/** The columns of the tax rules. @param troubles what is wrong with a rule, by its id */
export const taxColumns = (troubles: Readonly<Record<string, string>>): readonly Column<TypedTax>[] => [
  {
    head: 'Name',
    cell: (rule, set, name) => (
      <>
        <input
          aria-label={name('name')}
          className="blank"
          value={rule.name}
          onChange={(event) => set({ name: event.target.value })}
        />
        {troubles[rule.id] ? <FieldError>{troubles[rule.id]}</FieldError> : null}
      </>
    ),
  },
  {
    head: 'Rate %',
    cell: (rule, set, name) => (
      <NumberInput
        aria-label={name('rate in percent')}
        className="blank !w-16 text-right"
        value={rule.rate}
        onChange={(event) => set({ rate: event.target.value })}
      />
    ),
  },
  {
    head: 'Class',
    cell: (rule, set, name) => (
      <input
        aria-label={name('class')}
        className="blank !w-24"
        value={rule.class}
        onChange={(event) => set({ class: event.target.value })}
      />
    ),
  },
  {
    head: 'Country',
    cell: (rule, set, name) => (
      <input
        aria-label={name('country, or nothing for by hand only')}
        className="blank !w-14"
        placeholder="hand"
        maxLength={2}
        value={rule.country}
        onChange={(event) => set({ country: event.target.value.toUpperCase() })}
      />
    ),
  },
  {
    head: 'Regions',
    cell: (rule, set, name) => (
      <input
        aria-label={name('regions')}
        className="blank !w-24"
        placeholder="all"
        defaultValue={rule.regions.join(' ')}
        onBlur={(event) => set({ regions: listed(event.target.value) })}
      />
    ),
  },
  {
    head: 'Postal codes',
    cell: (rule, set, name) => (
      <textarea
        rows={1}
        aria-label={name('postal codes')}
        className="blank block !w-40 resize-none [field-sizing:content]"
        placeholder="all"
        defaultValue={rule.postalCodes.join(' ')}
        onBlur={(event) => set({ postalCodes: listed(event.target.value) })}
      />
    ),
  },
  {
    head: 'On delivery',
    align: 'center',
    cell: (rule, set, name) => (
      <Check
        aria-label={name('also on delivery')}
        checked={rule.onDelivery}
        onChange={(event) => set({ onDelivery: event.target.checked })}
      />
    ),
  },
  {
    head: 'Beside others',
    align: 'center',
    cell: (rule, set, name) => (
      <Check
        aria-label={name('applies beside others')}
        checked={rule.additional ?? false}
        onChange={(event) => set({ additional: event.target.checked })}
      />
    ),
  },
];

'use client';
import { type Item, UNITS, type Unit } from '@/core/item/item';
import { UNIT_SIGNS } from '../composer/line-row';
import { Field, TextField } from '../kit/field';
import type { Typed } from '../kit/form';
import { NumberField } from '../kit/number-input';
import { SelectField } from '../kit/select';
import type { ItemTyped } from './item-typed';

const KINDS = { goods: 'Goods', digital: 'Digital', service: 'Service' } as const;

/** What an item is called, is, and costs the business. */
export function ItemBasics({
  of: { values, set, at },
  currency,
  classes,
}: {
  of: Typed<ItemTyped>;
  currency: string;
  classes: readonly string[];
}) {
  return (
    <>
      <div className="grid gap-4 sm:grid-cols-[2fr_1fr]">
        <Field
          label="Name"
          value={values.name}
          maxLength={160}
          error={at('name')}
          onChange={(event) => set({ name: event.target.value })}
        />
        <Field
          label="Code"
          value={values.code}
          maxLength={40}
          error={at('code')}
          onChange={(event) => set({ code: event.target.value })}
        />
      </div>
      <TextField
        label="Description"
        value={values.description}
        maxLength={1000}
        hint="Stands below the line on invoices."
        onChange={(event) => set({ description: event.target.value })}
      />
      <div className="grid gap-4 sm:grid-cols-4">
        <SelectField
          label="Kind"
          value={values.kind}
          onChange={(event) => set({ kind: event.target.value as Item['kind'] })}
        >
          {Object.entries(KINDS).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Counted in"
          value={values.unit}
          onChange={(event) => set({ unit: event.target.value as Unit })}
        >
          {UNITS.map((unit) => (
            <option key={unit} value={unit}>
              {UNIT_SIGNS[unit]}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Tax class"
          value={values.taxClass}
          onChange={(event) => set({ taxClass: event.target.value })}
        >
          {[...new Set([...classes, values.taxClass])].map((one) => (
            <option key={one} value={one}>
              {one}
            </option>
          ))}
        </SelectField>
        <NumberField
          label={`Cost in ${currency}`}
          value={values.cost}
          error={at('cost')}
          hint="Only seen here."
          onChange={(event) => set({ cost: event.target.value })}
        />
      </div>
    </>
  );
}

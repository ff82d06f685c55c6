'use client';
import type { Handed, ItemGoing } from '@/core/item/item';
import type { Measures } from '@/core/parcel/measure';
import { Field } from '../kit/field';
import type { Typed } from '../kit/form';
import { SelectField } from '../kit/select';
import { LengthField, WeightField } from '../pack/weight-field';
import type { ItemTyped } from './item-typed';

const HANDED_WORDS: readonly (readonly [Handed | '', string])[] = [
  ['', 'As its kind does'],
  ['posted', 'Posted'],
  ['collected', 'Collected'],
  ['digital', 'As a file or a text'],
  ['service', 'Nothing is handed over'],
];

/** How an item goes to whoever buys it: its weight and sides, where it lies, and what customs ask. */
export function ItemGoingFields({ of: { values, set, at }, measures }: { of: Typed<ItemTyped>; measures: Measures }) {
  const { going } = values;
  const change = (part: Partial<ItemGoing>) => set({ going: { ...going, ...part } });
  return (
    <fieldset className="grid gap-3">
      <legend className="title-section w-full border-b border-ink pb-1">How it goes</legend>
      <div className="grid gap-3 pt-2 sm:grid-cols-3">
        <SelectField
          label="To the customer"
          value={going.handed}
          onChange={({ target }) => change({ handed: HANDED_WORDS.find(([one]) => one === target.value)?.[0] ?? '' })}
        >
          {HANDED_WORDS.map(([one, words]) => (
            <option key={one} value={one}>
              {words}
            </option>
          ))}
        </SelectField>
        <WeightField
          label="One weighs"
          measures={measures}
          value={going.grams}
          onChange={(grams) => change({ grams })}
        />
        <Field
          label="Shelf"
          value={going.shelf}
          maxLength={40}
          placeholder="A 3"
          onChange={(event) => change({ shelf: event.target.value })}
        />
      </div>
      <div className="grid gap-3 sm:grid-cols-5">
        <LengthField
          label="Length"
          measures={measures}
          value={going.lengthMm}
          onChange={(lengthMm) => change({ lengthMm })}
        />
        <LengthField
          label="Width"
          measures={measures}
          value={going.widthMm}
          onChange={(widthMm) => change({ widthMm })}
        />
        <LengthField
          label="Height"
          measures={measures}
          value={going.heightMm}
          onChange={(heightMm) => change({ heightMm })}
        />
        <Field
          label="Made in"
          value={going.origin}
          maxLength={2}
          placeholder="US"
          error={at('going.origin') ?? at('origin')}
          onChange={(event) => change({ origin: event.target.value.toUpperCase() })}
        />
        <Field
          label="Customs number"
          value={going.hsCode}
          maxLength={20}
          placeholder="9209.94"
          error={at('going.hsCode') ?? at('hsCode')}
          onChange={(event) => change({ hsCode: event.target.value })}
        />
      </div>
    </fieldset>
  );
}

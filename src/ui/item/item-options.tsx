'use client';
import { type Item, type ItemOption, stockKey } from '@/core/item/item';
import type { Measures } from '@/core/parcel/measure';
import { isLow } from '@/core/stock/available';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import type { Typed } from '../kit/form';
import { NumberField } from '../kit/number-input';
import { WeightField } from '../pack/weight-field';
import type { ItemTyped } from './item-typed';
import { KeptOnHand } from './kept-on-hand';
import { isReadable, stockWords } from './stock-words';

type Shown = { item: Item | null; currency: string; measures: Measures; promised: Readonly<Record<string, string>> };

function OptionRow({
  option,
  at: place,
  usualPrice = '',
  item,
  currency,
  measures,
  promised,
  trouble,
  set,
  onRemove,
}: Shown & {
  option: ItemOption;
  at: number;
  usualPrice: string | undefined;
  trouble: (field: string) => string | undefined;
  set: (part: Partial<ItemOption>) => void;
  onRemove: () => void;
}) {
  const kept = item?.options.find(({ id }) => id === option.id)?.onHand ?? null;
  return (
    <div className="grid items-end gap-3 border-b border-rule py-2.5 sm:grid-cols-[1.4fr_1fr_100px_84px_84px_auto]">
      <Field
        label="Name"
        value={option.name}
        maxLength={80}
        placeholder="Size, gauge …"
        error={trouble(`options.${place}.name`)}
        onChange={(event) => set({ name: event.target.value })}
      />
      <Field label="Code" value={option.code} maxLength={40} onChange={(event) => set({ code: event.target.value })} />
      <NumberField
        label={currency}
        value={option.prices[currency] ?? ''}
        placeholder={usualPrice}
        error={trouble(`options.${place}.prices`)}
        onChange={(event) => set({ prices: { ...option.prices, [currency]: event.target.value } })}
      />
      {item && kept !== null && option.onHand !== null ? (
        <KeptOnHand itemId={item.id} optionId={option.id} onHand={kept} onEnd={() => set({ onHand: null })} />
      ) : (
        <Field
          label="On hand"
          value={option.onHand ?? ''}
          placeholder="not kept"
          onChange={(event) => set({ onHand: event.target.value || null })}
        />
      )}
      <Field
        label="Low at"
        value={option.lowAt ?? ''}
        onChange={(event) => set({ lowAt: event.target.value || null })}
      />
      <Button look="link" className="pb-2" onClick={onRemove}>
        Remove
      </Button>
      <WeightField
        label="Weighs"
        className="sm:col-span-2"
        measures={measures}
        value={option.grams ?? 0}
        onChange={(grams) => set({ grams })}
      />
      <Field
        label="Shelf"
        value={option.shelf ?? ''}
        maxLength={40}
        onChange={(event) => set({ shelf: event.target.value })}
      />
      {item && stockWords(option.onHand, promised[stockKey(item.id, option.id)]) ? (
        <p className="small text-soft sm:col-span-6">
          {stockWords(option.onHand, promised[stockKey(item.id, option.id)])}
        </p>
      ) : null}
      {isReadable(option) && isLow(option) ? (
        <p className="small font-medium text-ochre sm:col-span-6">Low stock</p>
      ) : null}
    </div>
  );
}

/** The ways in which an item comes, each with its own code, price and stock. */
export function ItemOptions({ of: { values, set, at }, ...shown }: Shown & { of: Typed<ItemTyped> }) {
  const kept = values.onHand !== null || values.options.some(({ onHand }) => onHand !== null);
  const change = (id: string, part: Partial<ItemOption>) =>
    set({ options: values.options.map((one) => (one.id === id ? { ...one, ...part } : one)) });
  return (
    <div>
      <h2 className="title-section border-b border-ink pb-1">Options</h2>
      {values.options.map((option, place) => (
        <OptionRow
          key={option.id}
          option={option}
          at={place}
          usualPrice={values.prices[shown.currency]}
          {...shown}
          trouble={at}
          set={(part) => change(option.id, part)}
          onRemove={() => set({ options: values.options.filter(({ id }) => id !== option.id) })}
        />
      ))}
      <Button
        look="link"
        opens
        className="mt-2"
        onClick={() =>
          set({
            options: [
              ...values.options,
              {
                id: crypto.randomUUID(),
                name: '',
                code: '',
                prices: {},
                onHand: kept ? '0' : null,
                lowAt: null,
              },
            ],
            onHand: null,
            lowAt: null,
          })
        }
      >
        Add an option
      </Button>
    </div>
  );
}

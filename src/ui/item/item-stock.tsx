'use client';
import { type Item, stockKey } from '@/core/item/item';
import { isLow } from '@/core/stock/available';
import { TickField } from '../kit/check';
import { Field } from '../kit/field';
import type { Typed } from '../kit/form';
import type { ItemTyped } from './item-typed';
import { KeptOnHand } from './kept-on-hand';
import { stockWords } from './stock-words';

/** The stock of an item without options. */
export function ItemStock({
  of: { values, set, at },
  item,
  promised,
}: {
  of: Typed<ItemTyped>;
  item: Item | null;
  promised: Readonly<Record<string, string>>;
}) {
  return (
    <div className="flex flex-wrap items-end gap-4">
      <TickField
        label="Count its stock"
        checked={values.onHand !== null}
        onChange={(event) => set({ onHand: event.target.checked ? '0' : null, lowAt: null })}
      />
      {values.onHand === null ? null : (
        <>
          {item && item.onHand !== null ? (
            <KeptOnHand itemId={item.id} optionId={null} onHand={item.onHand} />
          ) : (
            <Field
              label="On hand"
              className="w-[110px]"
              value={values.onHand}
              error={at('onHand')}
              onChange={(event) => set({ onHand: event.target.value })}
            />
          )}
          <Field
            label="Low at"
            className="w-[110px]"
            value={values.lowAt ?? ''}
            error={at('lowAt')}
            onChange={(event) => set({ lowAt: event.target.value || null })}
          />
          <span className="pb-2 text-soft">
            {item ? stockWords(item.onHand, promised[stockKey(item.id, null)]) : ''}
            {item && isLow(item) ? <b className="ml-2 font-medium text-ochre">Low stock</b> : null}
          </span>
        </>
      )}
    </div>
  );
}

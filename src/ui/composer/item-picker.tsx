'use client';
import { type Item, type ItemOption, priceIn } from '@/core/item/item';
import { FoundPicker } from '../kit/found-picker';

type Row = { readonly item: Item; readonly option: ItemOption | null };

/** Items as they are chosen: each way that one comes in by itself. */
const rowsOf = (items: readonly Item[]): Row[] =>
  items.flatMap((item): Row[] =>
    item.options.length > 0 ? item.options.map((option) => ({ item, option })) : [{ item, option: null }],
  );

const stockWords = (onHand: string | null): string => (onHand === null ? '' : `${onHand} on hand`);

/** "From your items": found by name or code; one that comes in several ways offers each. */
export const ItemPicker = ({
  currency,
  onChoose,
}: {
  currency: string;
  onChoose: (item: Item, option: ItemOption | null) => void;
}) => (
  <FoundPicker<Item, Row>
    trigger="From your items"
    label="Your items"
    path="/api/items"
    nothing="Nothing by that name. Items are kept under Records."
    rowsOf={rowsOf}
    shown={({ item, option }) => ({
      key: option?.id ?? item.id,
      name: option ? `${item.name}, ${option.name}` : item.name,
      about: [option?.code || item.code, stockWords(option?.onHand ?? item.onHand)].filter(Boolean).join(' · '),
      figure: <span className="font-serif">{priceIn(item, option, currency) || 'no price'}</span>,
    })}
    onChoose={({ item, option }) => onChoose(item, option)}
  />
);

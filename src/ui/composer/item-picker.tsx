'use client';
import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { type Item, type ItemOption, priceIn } from '@/core/item/item';
import { useFinding } from '../kit/use-finding';

type Row = { readonly item: Item; readonly option: ItemOption | null };

/** Items as they are chosen: each way that one comes in by itself. */
const rowsOf = (items: readonly Item[]): Row[] =>
  items.flatMap((item): Row[] =>
    item.options.length > 0 ? item.options.map((option) => ({ item, option })) : [{ item, option: null }],
  );

/** "From your items": found by name or code; one that comes in several ways offers each. */
export function ItemPicker({
  currency,
  onChoose,
}: {
  currency: string;
  onChoose: (item: Item, option: ItemOption | null) => void;
}) {
  const [open, setOpen] = useState(false);
  const choose = ({ item, option }: Row) => {
    onChoose(item, option);
    setOpen(false);
    type('');
  };
  const { words, found, type, onKeyDown } = useFinding<Item>('/api/items', open, (items) => {
    const [first] = rowsOf(items);
    if (first) choose(first);
  });
  const rows = rowsOf(found ?? []);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger type="button" className="link">
        From your items
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="menu w-[min(420px,92vw)]" align="start" sideOffset={4} aria-label="Your items">
          <Command shouldFilter={false} label="Your items" onKeyDown={onKeyDown}>
            <Command.Input
              value={words}
              onValueChange={type}
              placeholder="Name or code"
              className="mb-1 w-full border-b border-ink bg-transparent px-2.5 pb-2 pt-1 font-serif text-[16px] outline-none"
            />
            <Command.List className="max-h-[300px] overflow-auto">
              {found && rows.length === 0 ? (
                <p className="px-2.5 py-3 text-soft">Nothing by that name. Items are kept under Records.</p>
              ) : null}
              {rows.map(({ item, option }) => (
                <Command.Item
                  key={option?.id ?? item.id}
                  value={option?.id ?? item.id}
                  className="menu-item"
                  onSelect={() => choose({ item, option })}
                >
                  <span className="min-w-0 flex-1">
                    <span className="block truncate font-serif text-[15.5px]/5">
                      {option ? `${item.name}, ${option.name}` : item.name}
                    </span>
                    <span className="small block text-soft">
                      {[option?.code || item.code, stockWords(option?.onHand ?? item.onHand)]
                        .filter(Boolean)
                        .join(' · ')}
                    </span>
                  </span>
                  <span className="font-serif">{priceIn(item, option, currency) || 'no price'}</span>
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const stockWords = (onHand: string | null): string => (onHand === null ? '' : `${onHand} on hand`);

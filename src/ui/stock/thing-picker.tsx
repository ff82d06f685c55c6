'use client';
import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { useFinding } from '../kit/use-finding';
import type { StockShown } from './shown';

/** "Add what came": things of which stock is kept, found by name or code. */
export function ThingPicker({ words: label, onChoose }: { words: string; onChoose: (thing: StockShown) => void }) {
  const [open, setOpen] = useState(false);
  const choose = (thing: StockShown) => {
    onChoose(thing);
    setOpen(false);
    type('');
  };
  const { words, found, type, onKeyDown } = useFinding<StockShown>('/api/stock/find', open, ([first]) => {
    if (first) choose(first);
  });
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger type="button" className="link">
        {label}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content className="menu w-[min(420px,92vw)]" align="start" sideOffset={4} aria-label={label}>
          <Command shouldFilter={false} label={label} onKeyDown={onKeyDown}>
            <Command.Input
              value={words}
              onValueChange={type}
              placeholder="Name or code"
              className="mb-1 w-full border-b border-ink bg-transparent px-2.5 pb-2 pt-1 font-serif text-[16px] outline-none"
            />
            <Command.List className="max-h-[300px] overflow-auto">
              {found && found.length === 0 ? (
                <p className="px-2.5 py-3 text-soft">
                  Nothing by that name is counted. Tick “Count its stock” at the item first.
                </p>
              ) : null}
              {(found ?? []).map((thing) => (
                <Command.Item key={thing.id} value={thing.id} className="menu-item" onSelect={() => choose(thing)}>
                  <span className="min-w-0 flex-1">
                    <span className="block truncate font-serif text-[15.5px]/5">{thing.name}</span>
                    <span className="small block text-soft">
                      {[thing.code, thing.shelf].filter(Boolean).join(' · ')}
                    </span>
                  </span>
                  <span className="small text-soft">{thing.onHand} on hand</span>
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

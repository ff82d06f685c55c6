'use client';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { useFinding } from './kit/use-finding';

/** Something that can be done from anywhere. */
export type Action = { readonly words: string; readonly key?: string; readonly do: () => void };

type Found = { id: string; number: string | null; customer: string | null; stage: string };

/** "Find or do": invoices by number or name, and every action, in one field. */
export function Finder({
  open,
  onOpenChange,
  actions,
  onOpen,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  actions: readonly Action[];
  onOpen: (path: string) => void;
}) {
  const [marked, setMarked] = useState('');
  const go = (work: () => void) => {
    onOpenChange(false);
    type('');
    work();
  };
  const openInvoice = ({ id, stage }: Found) =>
    go(() => onOpen(`/ask/${stage === 'draft' ? 'compose' : 'invoices'}/${id}`));
  const { words, found, type, onKeyDown } = useFinding<Found>(
    '/api/find',
    open,
    ([first]) => {
      if (first) openInvoice(first);
      else if (fitting[0]) go(fitting[0].do);
    },
    2,
  );
  const fitting = actions.filter((action) => action.words.toLowerCase().includes(words.trim().toLowerCase()));
  const first = found?.[0]?.id ?? fitting[0]?.words ?? '';
  useEffect(() => setMarked(first), [first]);
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-[rgb(36_26_38/30%)]" />
        <Dialog.Content
          className="sheet fixed left-1/2 top-[12vh] z-50 w-[min(540px,calc(100vw-24px))] -translate-x-1/2"
          aria-describedby={undefined}
        >
          <Dialog.Title className="sr-only">Find or do</Dialog.Title>
          <Command
            shouldFilter={false}
            label="Find or do"
            value={marked}
            onValueChange={setMarked}
            onKeyDown={onKeyDown}
          >
            <Command.Input
              value={words}
              onValueChange={type}
              placeholder="A name, a number, or what to do"
              className="w-full border-b border-ink bg-transparent px-5 py-3.5 font-serif text-[18px] outline-none"
            />
            <Command.List className="max-h-[50vh] overflow-auto p-2">
              <Command.Empty className="px-3 py-4 text-soft">Nothing by that name.</Command.Empty>
              {(found ?? []).map((invoice) => (
                <Command.Item
                  key={invoice.id}
                  value={invoice.id}
                  className="menu-item"
                  onSelect={() => openInvoice(invoice)}
                >
                  <span className="private font-serif text-[15px]">{invoice.customer ?? 'Nobody chosen yet'}</span>
                  <span className="ml-auto text-soft">{invoice.number ? `Invoice ${invoice.number}` : 'Draft'}</span>
                </Command.Item>
              ))}
              {fitting.map((action) => (
                <Command.Item
                  key={action.words}
                  value={action.words}
                  className="menu-item"
                  onSelect={() => go(action.do)}
                >
                  {action.words}
                  {action.key ? <kbd className="key ml-auto">{action.key}</kbd> : null}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

'use client';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { send } from './kit/send';

/** Something that can be done from anywhere. */
export type Action = { readonly words: string; readonly key?: string; readonly do: () => void };

type Found = { id: string; number: string | null; customer: string | null; stage: string };

const PAUSE_MS = 120;

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
  const [words, setWords] = useState('');
  const [found, setFound] = useState<readonly Found[]>([]);
  const [marked, setMarked] = useState('');
  useEffect(() => {
    const first = actions.find((action) => action.words.toLowerCase().includes(words.trim().toLowerCase()));
    setMarked(first?.words ?? '');
    if (words.trim().length < 2) return setFound([]);
    const asked = new AbortController();
    const timer = setTimeout(async () => {
      const answer = await send<Found[]>('GET', `/api/find?words=${encodeURIComponent(words)}`, undefined, {
        signal: asked.signal,
      });
      if (!answer.ok || asked.signal.aborted) return;
      setFound(answer.value);
      if (answer.value[0]) setMarked(answer.value[0].id);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      asked.abort();
    };
  }, [words, actions]);
  const go = (work: () => void) => {
    onOpenChange(false);
    setWords('');
    work();
  };
  const fitting = actions.filter((action) => action.words.toLowerCase().includes(words.trim().toLowerCase()));
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-[rgb(36_26_38/30%)]" />
        <Dialog.Content
          className="sheet fixed left-1/2 top-[12vh] z-50 w-[min(540px,calc(100vw-24px))] -translate-x-1/2"
          aria-describedby={undefined}
        >
          <Dialog.Title className="sr-only">Find or do</Dialog.Title>
          <Command shouldFilter={false} label="Find or do" value={marked} onValueChange={setMarked}>
            <Command.Input
              value={words}
              onValueChange={setWords}
              placeholder="A name, a number, or what to do"
              className="w-full border-b border-ink bg-transparent px-5 py-3.5 font-serif text-[18px] outline-none"
            />
            <Command.List className="max-h-[50vh] overflow-auto p-2">
              <Command.Empty className="px-3 py-4 text-soft">Nothing by that name.</Command.Empty>
              {found.map((invoice) => (
                <Command.Item
                  key={invoice.id}
                  value={invoice.id}
                  className="menu-item"
                  onSelect={() =>
                    go(() => onOpen(`/ask/${invoice.stage === 'draft' ? 'compose' : 'invoices'}/${invoice.id}`))
                  }
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

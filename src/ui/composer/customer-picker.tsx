'use client';
import { Command } from 'cmdk';
import { ChevronDown, Plus } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useEffect, useState } from 'react';
import type { Customer } from '@/core/customer/customer';
import { send } from '../kit/send';
import { NewCustomer } from './new-customer';

const PAUSE_MS = 120;
const ADD = 'add-somebody';

/** "Who pays": found by typing, or added on the spot without leaving the paper. */
export function CustomerPicker({
  customer,
  invalid,
  home,
  onChoose,
}: {
  customer: Customer | null;
  home: string;
  invalid: boolean;
  onChoose: (customer: Customer) => void;
}) {
  const [open, setOpen] = useState(false);
  const [adding, setAdding] = useState(false);
  const [words, setWords] = useState('');
  const [found, setFound] = useState<readonly Customer[]>([]);
  const [trouble, setTrouble] = useState('');
  const [marked, setMarked] = useState(ADD);

  useEffect(() => {
    if (!open) return;
    const asked = new AbortController();
    const timer = setTimeout(async () => {
      const answer = await send<Customer[]>('GET', `/api/customers?words=${encodeURIComponent(words)}`, undefined, {
        signal: asked.signal,
      });
      if (asked.signal.aborted) return;
      setTrouble(answer.ok ? '' : answer.words);
      if (!answer.ok) return;
      setFound(answer.value);
      // Enter takes the first one found, or adds where there is none.
      setMarked(answer.value[0]?.id ?? ADD);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      asked.abort();
    };
  }, [words, open]);

  return (
    <>
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          data-field="customer"
          aria-label={customer ? `Who pays: ${customer.name}` : 'Who pays: nobody chosen yet'}
          aria-invalid={invalid || undefined}
          className="blank flex items-center justify-between gap-2 text-left !text-[20px]/[27px] font-medium"
        >
          <span className={`private truncate ${customer ? '' : 'font-normal text-soft'}`}>
            {customer?.name ?? 'Choose who pays'}
          </span>
          <ChevronDown size={15} strokeWidth={1.6} className="flex-none" aria-hidden="true" />
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content className="menu w-[min(400px,92vw)]" align="start" sideOffset={4} aria-label="Who pays">
            <Command shouldFilter={false} label="Who pays" value={marked} onValueChange={setMarked}>
              <Command.Input
                value={words}
                onValueChange={setWords}
                placeholder="Type a name or an e-mail address"
                className="mb-1 w-full border-b border-ink bg-transparent px-2.5 pb-2 pt-1 font-serif text-[16px] outline-none"
              />
              <Command.List className="max-h-[300px] overflow-auto">
                {found.map((one) => (
                  <Command.Item
                    key={one.id}
                    value={one.id}
                    className="menu-item !block"
                    onSelect={() => {
                      onChoose(one);
                      setOpen(false);
                      setWords('');
                    }}
                  >
                    <span className="private block truncate font-serif text-[15.5px]/5">{one.name}</span>
                    <span className="private small block truncate text-soft">{one.email || one.billing.city}</span>
                  </Command.Item>
                ))}
                {trouble ? <p className="px-2.5 py-2 text-brick">{trouble}</p> : null}
                <Command.Item
                  value={ADD}
                  className="menu-item sticky bottom-0 !bg-sheet border-t border-rule data-[selected=true]:!bg-petal"
                  onSelect={() => {
                    setOpen(false);
                    setAdding(true);
                  }}
                >
                  <Plus size={15} strokeWidth={1.7} aria-hidden="true" />
                  {words.trim() ? `Add “${words.trim()}” as a new customer` : 'Add a new customer'}
                </Command.Item>
              </Command.List>
            </Command>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {adding ? (
        <NewCustomer
          words={words.trim()}
          home={home}
          onClose={() => setAdding(false)}
          onAdded={(added) => {
            onChoose(added);
            setAdding(false);
            setWords('');
          }}
        />
      ) : null}
    </>
  );
}

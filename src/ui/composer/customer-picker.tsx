'use client';
import { Command } from 'cmdk';
import { ChevronDown, Plus } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { Customer } from '@/core/customer/customer';
import { useFinding } from '../kit/use-finding';
import { NewCustomer } from './new-customer';

const ADD = 'add-somebody';

/**
 * "Who pays": found by typing, or added on the spot without leaving the paper. Where a paper was begun by key it is open from the start, and
 * once somebody is chosen, or nobody for now, the first line is next.
 */
export function CustomerPicker({
  customer,
  invalid,
  home,
  asksAtOnce = false,
  toLines,
  onChoose,
}: {
  customer: Customer | null;
  home: string;
  invalid: boolean;
  /** The paper was begun by key, and nothing is written on it yet. */
  asksAtOnce?: boolean;
  /** Goes to the first line; where there are none, the focus stays with the choice. */
  toLines?: () => void;
  onChoose: (customer: Customer) => void;
}) {
  const [open, setOpen] = useState(false);
  const goesOn = useRef(asksAtOnce);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the paper comes up
  useEffect(() => {
    if (asksAtOnce) setOpen(true);
  }, []);
  const [adding, setAdding] = useState(false);
  const [marked, setMarked] = useState(ADD);
  const choose = (one: Customer) => {
    goesOn.current = toLines !== undefined;
    onChoose(one);
    setOpen(false);
    type('');
  };
  // At once: the very next letter belongs into the form, and nothing takes its place there.
  const add = () =>
    flushSync(() => {
      setOpen(false);
      setAdding(true);
    });
  const { words, found, trouble, type, onKeyDown } = useFinding<Customer>('/api/customers', open, ([first]) =>
    first ? choose(first) : add(),
  );
  const goOn = () => {
    if (goesOn.current) toLines?.();
    goesOn.current = false;
  };
  // Enter takes the first one found, or adds where there is none.
  useEffect(() => setMarked(found?.[0]?.id ?? ADD), [found]);

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
          <Popover.Content
            className="menu w-[min(400px,92vw)]"
            align="start"
            sideOffset={4}
            aria-label="Who pays"
            onCloseAutoFocus={(event) => {
              if (adding || goesOn.current) event.preventDefault();
              if (!adding) goOn();
            }}
            onInteractOutside={() => {
              // Whoever presses elsewhere is already where they want to be.
              goesOn.current = false;
            }}
          >
            <Command
              shouldFilter={false}
              label="Who pays"
              value={marked}
              onValueChange={setMarked}
              onKeyDown={onKeyDown}
            >
              <Command.Input
                value={words}
                onValueChange={type}
                placeholder="Type a name or an e-mail address"
                className="mb-1 w-full border-b border-ink bg-transparent px-2.5 pb-2 pt-1 font-serif text-[16px] outline-none"
              />
              <Command.List className="max-h-[300px] overflow-auto">
                {(found ?? []).map((one) => (
                  <Command.Item key={one.id} value={one.id} className="menu-item !block" onSelect={() => choose(one)}>
                    <span className="private block truncate font-serif text-[15.5px]/5">{one.name}</span>
                    <span className="private small block truncate text-soft">{one.email || one.billing.city}</span>
                  </Command.Item>
                ))}
                {trouble ? <p className="px-2.5 py-2 text-brick">{trouble}</p> : null}
                <Command.Item
                  value={ADD}
                  className="menu-item sticky bottom-0 !bg-sheet border-t border-rule data-[selected=true]:!bg-petal"
                  onSelect={add}
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
            setAdding(false);
            choose(added);
            // After the form has given the focus back.
            setTimeout(goOn, 50);
          }}
        />
      ) : null}
    </>
  );
}

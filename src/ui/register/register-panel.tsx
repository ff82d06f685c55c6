'use client';
import { SlidersHorizontal } from 'lucide-react';
import { Popover } from 'radix-ui';
import { isDayOrNone } from '@/core/paper/paper';
import { REGISTER_STATES, type RegisterAsk, WHOLE_REGISTER } from '@/core/register/ask';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { DateField } from '../kit/date-field';
import { SelectField } from '../kit/select';
import { NarrowTo } from './narrow-to';
import type { NarrowingField } from './narrowing';

export const REGISTER_STATE_WORDS: Readonly<Record<(typeof REGISTER_STATES)[number], string>> = {
  paid: 'Paid',
  'part-refunded': 'Part-refunded',
  disputed: 'Disputed',
  'dispute-lost': 'Dispute lost',
  'came-back': 'Came back',
  refunded: 'Refunded',
  pending: 'Pending',
  refused: 'Refused',
  voided: 'Voided',
};

/** By what else the register is narrowed; kept under a name, and taken along as a file, from here. */
export function RegisterPanel({
  ask,
  currencies,
  maySave,
  address,
  set,
  onNarrow,
  onName,
}: {
  ask: RegisterAsk;
  currencies: readonly string[];
  maySave: boolean;
  /** What is asked, as an address has it. */
  address: string;
  set: (part: Partial<RegisterAsk>) => void;
  onNarrow: (field: NarrowingField, id: string, name: string) => void;
  onName: () => void;
}) {
  const file = (form: 'csv' | 'json') => `/files/register?${address}${address ? '&' : ''}form=${form}`;
  return (
    <Popover.Root>
      <Popover.Trigger className="btn !px-2.5" aria-label="Narrow the payments and take them along">
        <SlidersHorizontal size={16} strokeWidth={1.6} aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="menu grid max-h-[min(560px,calc(100dvh-120px))] w-[min(360px,94vw)] gap-3 overflow-y-auto p-4"
          align="end"
          sideOffset={4}
          aria-label="Narrow the payments"
        >
          <div className="grid grid-cols-2 gap-3">
            <DateField label="From" value={ask.from} onDay={(day) => isDayOrNone(day) && set({ from: day })} />
            <DateField label="To" value={ask.to} onDay={(day) => isDayOrNone(day) && set({ to: day })} />
            <SelectField
              label="State"
              value={ask.state}
              onChange={(event) => set({ state: event.target.value as RegisterAsk['state'] })}
            >
              <option value="">any state</option>
              {REGISTER_STATES.map((state) => (
                <option key={state} value={state}>
                  {REGISTER_STATE_WORDS[state]}
                </option>
              ))}
            </SelectField>
            <SelectField
              label="Currency"
              value={ask.currency}
              onChange={(event) => set({ currency: event.target.value })}
            >
              <option value="">any currency</option>
              {currencies.map((currency) => (
                <option key={currency} value={currency}>
                  {currency}
                </option>
              ))}
            </SelectField>
          </div>
          <NarrowTo onChoose={onNarrow} />
          <TickField
            label="Only where the fee is not what was agreed"
            checked={ask.fee === 'differs'}
            onChange={(event) => set({ fee: event.target.checked ? 'differs' : '' })}
          />
          <TickField
            label="Only what is not in your account yet"
            checked={ask.landed === 'not-yet'}
            onChange={(event) => set({ landed: event.target.checked ? 'not-yet' : '' })}
          />
          <div className="flex flex-wrap gap-x-4 gap-y-2 border-t border-rule pt-3">
            <a className="link" href={file('csv')} download>
              Export CSV
            </a>
            <a className="link" href={file('json')} download>
              Export JSON
            </a>
            {maySave ? (
              <Button look="link" onClick={onName}>
                Save this list
              </Button>
            ) : null}
            <Button look="link" onClick={() => set(WHOLE_REGISTER)}>
              Show everything
            </Button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

'use client';
import { SlidersHorizontal } from 'lucide-react';
import { Popover } from 'radix-ui';
import { EVERYTHING, type InvoiceAsk, isNarrowed, type Sort } from '@/core/invoice/ask';
import { isDayOrNone } from '@/core/paper/paper';
import { Button } from '../kit/button';
import { DateField } from '../kit/date-field';
import { NumberField } from '../kit/number-input';
import { SelectField } from '../kit/select';

const SORT_WORDS: Readonly<Record<Sort, string>> = { due: 'Due date', issued: 'Day of issue', total: 'Total' };

/** By what the list is narrowed and sorted; kept under a name from here. */
export function SearchPanel({
  ask,
  groups,
  names,
  mayAsk,
  set,
  onName,
}: {
  ask: InvoiceAsk;
  groups: readonly string[];
  /** Under which the business trades. */
  names: readonly { readonly id: string; readonly name: string }[];
  mayAsk: boolean;
  set: (part: Partial<InvoiceAsk>) => void;
  onName: () => void;
}) {
  return (
    <Popover.Root>
      <Popover.Trigger className="btn !px-2.5" aria-label="Narrow the list and sort it">
        <SlidersHorizontal size={16} strokeWidth={1.6} aria-hidden="true" />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="menu grid w-[min(340px,94vw)] gap-3 p-4"
          align="end"
          sideOffset={4}
          aria-label="Narrow the list"
        >
          <div className="grid grid-cols-2 gap-3">
            <DateField label="Issued from" value={ask.from} onDay={(day) => isDayOrNone(day) && set({ from: day })} />
            <DateField label="to" value={ask.to} onDay={(day) => isDayOrNone(day) && set({ to: day })} />
            <NumberField
              label="Total from"
              value={ask.least}
              onChange={(event) => set({ least: event.target.value })}
            />
            <NumberField label="to" value={ask.most} onChange={(event) => set({ most: event.target.value })} />
          </div>
          {groups.length > 0 ? (
            <SelectField
              label="Customers of"
              value={ask.group}
              onChange={(event) => set({ group: event.target.value })}
            >
              <option value="">all groups</option>
              {groups.map((group) => (
                <option key={group} value={group}>
                  {group}
                </option>
              ))}
            </SelectField>
          ) : null}
          {names.length > 0 ? (
            <SelectField
              label="Under which name"
              value={ask.tradingNameId}
              onChange={(event) => set({ tradingNameId: event.target.value })}
            >
              <option value="">any</option>
              {names.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectField>
          ) : null}
          <div className="grid grid-cols-2 gap-3">
            <SelectField
              label="In order of"
              value={ask.sort}
              onChange={(event) => set({ sort: event.target.value as Sort })}
            >
              {(Object.keys(SORT_WORDS) as Sort[]).map((sort) => (
                <option key={sort} value={sort}>
                  {SORT_WORDS[sort]}
                </option>
              ))}
            </SelectField>
            <SelectField
              label="Beginning with"
              value={String(ask.descending)}
              onChange={(event) => set({ descending: event.target.value === 'true' })}
            >
              <option value="true">the latest or largest</option>
              <option value="false">the earliest or smallest</option>
            </SelectField>
          </div>
          <div className="flex flex-wrap gap-x-4 gap-y-2 border-t border-rule pt-3">
            <Button look="link" onClick={() => set(EVERYTHING)}>
              Ask nothing
            </Button>
            {mayAsk ? (
              <Button look="link" disabled={!isNarrowed(ask)} onClick={onName}>
                Save this list
              </Button>
            ) : null}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

'use client';
import { Command } from 'cmdk';
import { Popover } from 'radix-ui';
import { type ReactNode, useState } from 'react';
import { useFinding } from './use-finding';

/** How a thing that was found is shown. */
export type FoundShown = {
  readonly key: string;
  readonly name: string;
  readonly about: string;
  readonly figure: ReactNode;
};

/** A link that opens a search over things by name or code; what is chosen closes it. */
export function FoundPicker<Found, Row>({
  trigger,
  label,
  path,
  nothing,
  rowsOf,
  shown,
  onChoose,
}: {
  trigger: string;
  /** What is searched, for who does not see it. */
  label: string;
  /** Where it is asked. */
  path: string;
  /** What is said where nothing is found. */
  nothing: string;
  /** What can be chosen of what was found. */
  rowsOf: (found: readonly Found[]) => readonly Row[];
  shown: (row: Row) => FoundShown;
  onChoose: (row: Row) => void;
}) {
  const [open, setOpen] = useState(false);
  const choose = (row: Row) => {
    onChoose(row);
    setOpen(false);
    type('');
  };
  const { words, found, type, onKeyDown } = useFinding<Found>(path, open, (all) => {
    const [first] = rowsOf(all);
    if (first) choose(first);
  });
  const rows = rowsOf(found ?? []).map((row) => ({ row, ...shown(row) }));
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger type="button" className="link">
        {trigger}
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
              {found && rows.length === 0 ? <p className="px-2.5 py-3 text-soft">{nothing}</p> : null}
              {rows.map(({ row, key, name, about, figure }) => (
                <Command.Item key={key} value={key} className="menu-item" onSelect={() => choose(row)}>
                  <span className="min-w-0 flex-1">
                    <span className="block truncate font-serif text-[15.5px]/5">{name}</span>
                    <span className="small block text-soft">{about}</span>
                  </span>
                  {figure}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

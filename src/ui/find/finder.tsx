'use client';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { Amount } from '../kit/amount';
import { usePress } from '../kit/press';
import { useFinding } from '../kit/use-finding';
import { useMakeAndOpen } from '../make-and-open';
import { type Action, actionsFor } from './actions';
import { deedWords, doingOf } from './deeds';
import { type FoundLine, pathOf, whatItIs } from './json-found';

const isDeed = (line: FoundLine): line is FoundLine & { deed: NonNullable<FoundLine['deed']> } => line.deed !== null;
const keyOf = (line: FoundLine): string => `${line.deed ?? ''} ${line.kind} ${line.id}`;

/** One line of what was found: who or what, what it is, and its sum. */
function FoundItem({ line, locale, onSelect }: { line: FoundLine; locale: string; onSelect: () => void }) {
  return (
    <Command.Item value={keyOf(line)} className="menu-item" onSelect={onSelect}>
      <span className="private min-w-0 flex-1 truncate font-serif text-[15px]">
        {line.name || 'Nobody chosen yet'}
        {line.about && line.about !== line.name ? (
          <span className="small ml-2 font-sans text-soft">{line.about}</span>
        ) : null}
      </span>
      <span className="small ml-3 flex-none text-soft">{whatItIs(line)}</span>
      {line.minor === null ? null : (
        <span className="private ml-3 w-[84px] flex-none text-right font-serif text-[14.5px]">
          <Amount minor={line.minor} currency={line.currency} locale={locale} />
        </span>
      )}
    </Command.Item>
  );
}

function Group({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <Command.Group
      heading={name}
      className="pb-1 [&_[cmdk-group-heading]]:px-2.5 [&_[cmdk-group-heading]]:pb-0.5 [&_[cmdk-group-heading]]:pt-1.5 [&_[cmdk-group-heading]]:text-[12px] [&_[cmdk-group-heading]]:text-soft"
    >
      {children}
    </Command.Group>
  );
}

/** "Find or do": everything on file, what a typed verb does with it, and every action, in one field. */
export function Finder({
  open,
  onOpenChange,
  actions,
  locale,
  mayAsk,
  onOpen,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  actions: readonly Action[];
  locale: string;
  mayAsk: boolean;
  onOpen: (path: string) => void;
}) {
  const [marked, setMarked] = useState('');
  const { pressed } = usePress({ keyed: true });
  const { makeAndOpen } = useMakeAndOpen();
  const go = (work: () => void) => {
    onOpenChange(false);
    type('');
    work();
  };
  const openLine = (line: FoundLine) => go(() => onOpen(pathOf(line)));
  const doLine = (line: FoundLine) => {
    if (!isDeed(line)) return openLine(line);
    const doing = doingOf(line);
    go(() => {
      if (doing.by === 'open') onOpen(doing.path);
      else if (doing.by === 'make') void makeAndOpen(doing.address, doing.body, doing.path);
      else void pressed(doing.address, doing.body, doing.done, doing.method);
    });
  };
  const { words, found, trouble, type, onKeyDown } = useFinding<FoundLine>(
    '/api/find',
    open,
    (lines) => {
      // Enter came before the answer: what would stand first is meant.
      const first = order(lines)[0];
      if (first) first.do();
    },
    1,
  );
  const fitting = actionsFor(actions, words);
  const typed = words.trim().toLowerCase();
  const named = typed.length > 1 ? fitting.filter((one) => one.words.toLowerCase().startsWith(typed)) : [];
  const rest = fitting.filter((one) => !named.includes(one));
  const order = (lines: readonly FoundLine[]): { key: string; do: () => void }[] => [
    ...lines.filter((line) => isDeed(line) && mayAsk).map((line) => ({ key: keyOf(line), do: () => doLine(line) })),
    ...named.map((action) => ({ key: action.words, do: () => go(action.do) })),
    ...lines.filter((line) => !isDeed(line)).map((line) => ({ key: keyOf(line), do: () => openLine(line) })),
    ...rest.map((action) => ({ key: action.words, do: () => go(action.do) })),
  ];
  const lines = found ?? [];
  const deeds = mayAsk ? lines.filter(isDeed) : [];
  const things = lines.filter((line) => !isDeed(line));
  const first = order(lines)[0]?.key ?? '';
  useEffect(() => setMarked(first), [first]);
  const actionItem = (action: Action) => (
    <Command.Item key={action.words} value={action.words} className="menu-item" onSelect={() => go(action.do)}>
      {action.words}
      {action.key ? <kbd className="key ml-auto">{action.key}</kbd> : null}
    </Command.Item>
  );
  const grouped = words.trim() === '';
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-[rgb(36_26_38/30%)]" />
        <Dialog.Content
          className="sheet fixed left-1/2 top-[10vh] z-50 w-[min(640px,calc(100vw-24px))] -translate-x-1/2"
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
              placeholder="A name, number, sum, last digits, or what to do"
              className="w-full border-b border-ink bg-transparent px-5 py-3.5 font-serif text-[18px] outline-none"
            />
            <Command.List className="max-h-[62vh] overflow-auto p-2">
              <Command.Empty className="px-3 py-4 text-soft">
                {trouble || 'Nothing by that name, number or sum.'}
              </Command.Empty>
              {deeds.map((line) => (
                <Command.Item key={keyOf(line)} value={keyOf(line)} className="menu-item" onSelect={() => doLine(line)}>
                  <span className="private min-w-0 flex-1 truncate">
                    <span className="font-semibold">{deedWords(line)}</span>
                    {line.kind === 'customer' ? null : <span className="ml-2 font-serif text-[15px]">{line.name}</span>}
                  </span>
                  {line.minor === null ? null : (
                    <span className="private ml-3 flex-none font-serif text-[14.5px]">
                      <Amount minor={line.minor} currency={line.currency} locale={locale} />
                    </span>
                  )}
                </Command.Item>
              ))}
              {named.map(actionItem)}
              {things.map((line) => (
                <FoundItem key={keyOf(line)} line={line} locale={locale} onSelect={() => openLine(line)} />
              ))}
              {grouped
                ? (['New', 'Go to', 'This desk'] as const).map((name) => (
                    <Group key={name} name={name}>
                      {rest.filter(({ group }) => group === name).map(actionItem)}
                    </Group>
                  ))
                : rest.map(actionItem)}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

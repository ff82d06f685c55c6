'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button } from '../kit/button';
import { Empty } from '../kit/empty';
import { useKeys } from '../kit/keys';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { AsideDialog } from './aside-dialog';
import { type BankLineShown, type BankProposal, GROUPS } from './bank-shown';
import { FindInvoice, type FoundInvoice } from './find-invoice';
import { LineList } from './line-list';
import { Proposals, type Taken } from './proposals';
import { Slip } from './slip';

const KEYS: readonly (readonly [keys: string, words: string])[] = [
  ['↑ ↓', 'line'],
  ['1 – 4', 'proposal'],
  ['Enter', 'match'],
  ['f', 'find'],
  ['x', 'not from a customer'],
  ['l', 'leave for later'],
  ['u', 'undo'],
];

const [DOWN, UP] = ['ArrowDown', 'ArrowUp'] as const;

/** Invoices that somebody found, as a proposal of their own: each gets what is due, the last what is left. */
function foundProposal(invoices: readonly FoundInvoice[], line: BankLineShown): BankProposal {
  let left = line.open;
  const parts = invoices.map(({ id, number, due }) => {
    const minor = Math.max(0, Math.min(left, due));
    left -= minor;
    return { kind: 'invoice', id, label: `Invoice ${number}`, minor };
  });
  return {
    key: `found ${invoices.map(({ id }) => id).join('+')}`,
    title:
      invoices.length === 1
        ? `Invoice ${invoices[0]?.number}, ${invoices[0]?.customer}`
        : `${invoices.length} invoices`,
    parts,
    rest: left,
    facts: [],
    agreeing: 0,
    sure: 'could',
  };
}

/** Lines of the bank one beside what each could be for: walked and matched by keys or mouse. */
export function BankDesk({
  lines,
  account,
  currency,
  locale,
  may,
  older,
}: {
  lines: readonly BankLineShown[];
  account: string;
  currency: string;
  locale: string;
  may: boolean;
  /** Where older matched lines are shown too; null where there are none. */
  older: string | null;
}) {
  const { busy, press } = usePress();
  const ordered = useMemo(() => GROUPS.flatMap(({ group }) => lines.filter((line) => line.group === group)), [lines]);
  const [chosen, setChosen] = useState('');
  const [at, setAt] = useState(0);
  const [found, setFound] = useState<BankProposal | null>(null);
  const [dialog, setDialog] = useState<'find' | 'aside' | null>(null);
  const [trouble, setTrouble] = useState('');
  const pressId = useRef('');
  const line = ordered.find(({ id }) => id === chosen) ?? ordered[0];
  const sure = ordered.filter(({ group }) => group === 'sure').length;
  const shown = line && found ? { ...line, proposals: [found, ...line.proposals] } : line;
  const proposal = shown?.proposals[at];

  // Another line begins anew; a key is kept until its match is done, so that a second press is the same one.
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever another line is in hand
  useEffect(() => {
    setAt(0);
    setFound(null);
    setTrouble('');
    pressId.current = '';
  }, [line?.id]);

  function choose(id: string) {
    setChosen(id);
    document.querySelector(`[data-line="${id}"]`)?.scrollIntoView({ block: 'nearest' });
    // On a phone the line in hand stands above the list.
    document.querySelector('[aria-label="The line in hand"]')?.scrollIntoView({ block: 'nearest' });
  }
  function walk(step: number) {
    const index = ordered.findIndex(({ id }) => id === line?.id);
    const next = ordered[index + step];
    if (next) choose(next.id);
  }
  /** The line after the one that leaves: the next that still waits. */
  function goOn() {
    const index = ordered.findIndex(({ id }) => id === line?.id);
    const next = [...ordered.slice(index + 1), ...ordered.slice(0, index)].find(
      ({ group }) => group !== 'matched' && group !== 'later',
    );
    if (next) choose(next.id);
  }

  async function take(taken: Taken): Promise<string> {
    if (!line) return '';
    pressId.current ||= crypto.randomUUID();
    const answer = await press(`/api/bank/lines/${line.id}/match`, { ...taken, press: pressId.current }, 'Matched');
    setTrouble(answer.ok ? '' : troubleOf(answer));
    if (answer.ok) {
      pressId.current = '';
      setDialog(null);
      goOn();
    }
    return answer.ok ? '' : troubleOf(answer);
  }
  const takeProposal = () => {
    // Enter on a button or a link presses that, and matches nothing.
    const focused = document.activeElement;
    if (focused instanceof HTMLElement && focused.matches('a, button, summary') && !focused.dataset.line)
      return focused.click();
    if (!proposal || !line || line.group === 'matched') return;
    // By the form where there is one: sums and what becomes of the rest are what it says.
    const form = document.querySelector<HTMLFormElement>('section[aria-label="What it could be for"] form');
    form?.requestSubmit();
  };
  async function undo() {
    if (!line || line.matches.length === 0) return;
    const answer = await press(`/api/bank/lines/${line.id}/undo`, {}, 'Taken back: the line waits again');
    if (!answer.ok) sayTrouble(troubleOf(answer));
  }
  async function later() {
    if (!line || line.group === 'matched') return;
    const isLater = line.group !== 'later';
    const answer = await press(
      `/api/bank/lines/${line.id}/later`,
      { later: isLater },
      isLater ? 'Left for later' : 'Taken up again',
    );
    if (!answer.ok) return sayTrouble(troubleOf(answer));
    if (isLater) goOn();
  }
  async function takeSure() {
    const answer = await press<{ taken: number }>('/api/bank/sure', { account, currency });
    if (!answer.ok) return sayTrouble(troubleOf(answer));
    say(answer.value.taken === 1 ? 'One line is matched' : `${answer.value.taken} lines are matched`);
  }

  const isOpen = may && line !== undefined && line.group !== 'matched';
  useKeys({
    [DOWN]: () => walk(1),
    [UP]: () => walk(-1),
    ...Object.fromEntries([1, 2, 3, 4].map((one) => [String(one), () => shown?.proposals[one - 1] && setAt(one - 1)])),
    ...(may ? { Enter: takeProposal, u: () => void undo(), l: () => void later() } : {}),
    ...(isOpen ? { f: () => setDialog('find'), x: () => setDialog('aside') } : {}),
  });

  if (!line || !shown) return <Empty words="Every line is matched. The next statement brings what comes." />;
  return (
    <>
      <div className="grid grid-cols-1 items-start gap-5 md:grid-cols-[minmax(280px,372px)_minmax(0,1fr)] xl:grid-cols-[372px_380px_minmax(0,1fr)]">
        <aside
          aria-label="Lines"
          className="overflow-x-clip md:-ml-3 md:max-h-[calc(100dvh-250px)] md:overflow-y-auto md:pl-3 md:pr-[21px] md:-mr-[21px] [scrollbar-width:thin]"
        >
          {may && sure > 0 ? (
            <p className="pt-1">
              <Button look="go" busy={busy} onClick={() => void takeSure()}>
                {sure === 1 ? 'Take the sure one' : `Take the ${sure} sure ones`}
              </Button>
            </p>
          ) : null}
          <LineList lines={ordered} at={line.id} currency={currency} locale={locale} onChoose={choose} />
          {older ? (
            <p className="py-3">
              <Link className="link" href={older as Route} scroll={false}>
                Older lines that are matched
              </Link>
            </p>
          ) : null}
        </aside>
        <div className="grid min-w-0 gap-5 max-md:order-first md:contents">
          <Slip
            line={line}
            facts={proposal?.facts ?? []}
            currency={currency}
            locale={locale}
            may={may}
            busy={busy}
            onUndo={() => void undo()}
          />
          {line.group === 'matched' ? null : (
            <div className="md:col-start-2 xl:col-start-auto">
              <Proposals
                line={shown}
                at={at}
                currency={currency}
                locale={locale}
                may={may}
                busy={busy}
                trouble={trouble}
                onChoose={setAt}
                onTake={(taken) => void take(taken)}
                onFind={() => setDialog('find')}
                onAside={() => setDialog('aside')}
                onLater={() => void later()}
              />
            </div>
          )}
        </div>
      </div>
      <p className="hidden flex-wrap gap-x-4 gap-y-1 pt-4 text-[12.5px]/[18px] text-soft md:flex">
        {KEYS.map(([keys, words]) => (
          <span key={keys}>
            <kbd className="key">{keys}</kbd> {words}
          </span>
        ))}
      </p>
      {dialog === 'find' ? (
        <FindInvoice
          currency={currency}
          locale={locale}
          first={line.name}
          onClose={() => setDialog(null)}
          onFound={(invoices) => {
            setFound(foundProposal(invoices, line));
            setAt(0);
            setDialog(null);
          }}
        />
      ) : null}
      {dialog === 'aside' ? (
        <AsideDialog line={line} busy={busy} onTake={take} onClose={() => setDialog(null)} />
      ) : null}
    </>
  );
}

'use client';
import { useState } from 'react';
import { decimalSignOf, spokenDecimal } from '@/core/money/typed';
import { useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { say, sayTrouble } from '../kit/toasts';
import { useReader } from '../pack/use-reader';
import { Hand } from '../shipment/hand';
import { HandOverDialog } from './hand-over-dialog';
import type { CounterRowShown } from './shown';

type Lately = {
  readonly id: string;
  readonly when: string;
  readonly name: string;
  readonly recipient: string;
  readonly number: string;
  readonly strokes: string;
  readonly byName: string;
};

/** What is paid and waits to be fetched, and who fetched what lately. */
export function CounterDesk({
  rows,
  lately,
  words,
  mayPack,
}: {
  rows: readonly CounterRowShown[];
  lately: readonly Lately[];
  words: string;
  mayPack: boolean;
}) {
  const sign = decimalSignOf(useDeskLocale());
  const [open, setOpen] = useState<CounterRowShown | null>(null);
  const [says, setSays] = useState('');
  const { busy, press } = usePress();
  const untold = rows.filter(({ canTell }) => canTell).map(({ id }) => id);
  async function tell(ids: readonly string[]) {
    const answer = await press<{ told: number }>('/api/counter/ready', { ids });
    if (!answer.ok) return sayTrouble(answer.words);
    const { told } = answer.value;
    say(told === 1 ? 'They are told by mail' : `${told} are told by mail`);
  }
  useReader((code) => {
    const row = rows.find(({ sale }) => sale.endsWith(` ${code.trim()}`));
    setSays(row ? '' : `${code}: nothing that waits here has this number.`);
    if (row && mayPack) setOpen(row);
  });
  return (
    <div className="mx-auto grid max-w-[1180px] items-start gap-x-8 gap-y-6 px-4 pb-12 pt-5 sm:px-7 lg:grid-cols-[minmax(0,1fr)_300px]">
      <section aria-label="Waits to be fetched">
        <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
          <h1 className="title-screen flex-1">At the counter</h1>
          {mayPack && untold.length > 1 ? (
            <Button look="link" disabled={busy} onClick={() => tell(untold)}>
              Tell all {untold.length} that it is ready
            </Button>
          ) : null}
          <form action="/deliver/counter" role="search" className="flex gap-3">
            <input
              className="input w-[220px]"
              type="search"
              name="words"
              aria-label="Name or number"
              placeholder="Name or number"
              defaultValue={words}
              maxLength={120}
            />
            <Button type="submit">Find</Button>
          </form>
        </div>
        {says ? (
          <p role="status" className="mt-2 font-medium text-brick">
            {says}
          </p>
        ) : null}
        {rows.length === 0 ? (
          <p className="document py-6 text-soft">
            {words
              ? 'Nothing that waits here answers to that.'
              : 'Nothing waits to be fetched. What is paid and collected comes here: say so at an item, or on a line of an invoice.'}
          </p>
        ) : (
          <ul className="sheet mt-4 px-5 py-1">
            {rows.map((row) => (
              <li
                key={row.id}
                className="grid items-center gap-x-5 gap-y-1 border-b border-rule py-2.5 last:border-0 sm:grid-cols-[minmax(0,1fr)_auto]"
              >
                <span className="min-w-0">
                  <span className="private block break-words font-serif text-[16.5px]/6 font-medium">{row.name}</span>
                  <span className="private block break-words">
                    {row.lines
                      .map(({ what, left }) => (left === '1' ? what : `${what}, ${spokenDecimal(left, sign)}`))
                      .join('; ')}
                  </span>
                  <span className="small private block text-soft">
                    {[row.sale, row.since ? `since ${row.since}` : '', row.phone, row.told ? `told ${row.told}` : '']
                      .filter(Boolean)
                      .join(' · ')}
                  </span>
                  {row.wish ? (
                    <span className="small private block whitespace-pre-line text-dusk">{row.wish}</span>
                  ) : null}
                </span>
                {mayPack ? (
                  <span className="flex flex-wrap items-center gap-4">
                    {row.canTell ? (
                      <Button
                        look="link"
                        disabled={busy}
                        aria-label={`Tell ${row.name} that it is ready`}
                        onClick={() => tell([row.id])}
                      >
                        Tell them it is ready
                      </Button>
                    ) : null}
                    <Button onClick={() => setOpen(row)}>Hand over</Button>
                  </span>
                ) : null}
              </li>
            ))}
          </ul>
        )}
      </section>
      {lately.length > 0 ? (
        <section aria-label="Fetched lately">
          <h2 className="title-section border-b border-ink pb-1">Fetched lately</h2>
          <ul>
            {lately.map((one) => (
              <li
                key={one.id}
                className="grid grid-cols-[minmax(0,1fr)_92px] items-center gap-3 border-b border-rule py-2"
              >
                <span className="min-w-0">
                  <span className="private block truncate font-serif text-[15.5px]">{one.name}</span>
                  <span className="small private block truncate text-soft">
                    {one.name === one.recipient ? '' : `for ${one.recipient}, `}
                    {one.number} · {one.when}
                  </span>
                </span>
                <Hand name={one.name} strokes={one.strokes} />
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {open ? <HandOverDialog row={open} onClose={() => setOpen(null)} /> : null}
    </div>
  );
}

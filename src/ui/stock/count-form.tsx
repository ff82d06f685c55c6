'use client';
import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import { decimalSignOf, spokenCount } from '@/core/money/typed';
import { useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { useKeys } from '../kit/keys';
import { NumberInput } from '../kit/number-input';
import { send } from '../kit/send';
import { say } from '../kit/toasts';
import { useReader } from '../pack/use-reader';
import { ListDrop } from './list-drop';
import type { StockShown } from './shown';

type Counted = Readonly<Record<string, { readonly counted: string; readonly expected: string }>>;
type Values = { requestKey: string; why: string; counted: Counted };
type Moved = { readonly itemId: string; readonly optionId: string | null; readonly expected: string };

const rules = () => import('@/input/stock-input').then(({ CountInput }) => CountInput);

const byPlace = (one: StockShown, other: StockShown): number =>
  one.shelf.localeCompare(other.shelf, undefined, { numeric: true }) || one.name.localeCompare(other.name);

/** What lies on the shelves, counted along them: typed, read piece by piece, or from a file. Only what is written is booked. */
export function CountForm({ things }: { things: readonly StockShown[] }) {
  const router = useRouter();
  const locale = useDeskLocale();
  const sign = decimalSignOf(locale);
  const field = useRef<HTMLInputElement>(null);
  const [read, setRead] = useState('');
  const [says, setSays] = useState('');
  const sorted = useMemo(() => [...things].sort(byPlace), [things]);
  const byId = new Map(things.map((thing) => [thing.id, thing]));
  const form = useTyped<Values, { moved: readonly Moved[] }>({
    start: { requestKey: crypto.randomUUID(), why: '', counted: {} },
    keepAs: 'stock:count',
    shape: rules,
    body: ({ requestKey, why, counted }) => ({
      ...{ requestKey, why },
      lines: Object.entries(counted).flatMap(([id, { counted: count, expected }]) => {
        const thing = byId.get(id);
        return thing ? [{ itemId: thing.itemId, optionId: thing.optionId, counted: count, expected }] : [];
      }),
    }),
    send: (body) => send('POST', '/api/stock/count', body),
    done: ({ moved }, { counted }) => {
      const left = new Set(moved.map(({ itemId, optionId }) => optionId ?? itemId));
      const booked = Object.keys(counted).filter((id) => byId.has(id) && !left.has(id)).length;
      if (booked > 0) say(booked === 1 ? 'One count is booked' : `${booked} counts are booked`);
      form.begin({ requestKey: crypto.randomUUID(), why: '', counted: {} });
      setSays(
        moved.length === 0
          ? ''
          : `${moved.map(({ itemId, optionId }) => byId.get(optionId ?? itemId)?.name ?? '').join(', ')}: something was packed, received or counted meanwhile. Count again what lies there now.`,
      );
      router.refresh();
    },
  });
  const { values, set, trouble } = form;

  const write = (counted: Counted, thing: StockShown, count: string): Counted => {
    if (count.trim() === '') {
      const { [thing.id]: _, ...rest } = counted;
      return rest;
    }
    // What should lie there is kept as of the first stroke: what is packed from then on is told.
    return { ...counted, [thing.id]: { counted: count, expected: counted[thing.id]?.expected ?? thing.lies } };
  };
  const onePiece = (code: string) => {
    const wanted = code.trim().toLowerCase();
    if (!wanted) return;
    const thing = things.find((one) => one.code.toLowerCase() === wanted);
    setRead('');
    if (!thing) return setSays(`${code.trim()}: nothing that is counted has this code.`);
    setSays('');
    const before = Number(values.counted[thing.id]?.counted ?? '0');
    set({ counted: write(values.counted, thing, String((Number.isNaN(before) ? 0 : before) + 1)) });
  };
  useReader(onePiece);
  useKeys(useMemo(() => ({ b: () => field.current?.focus() }), []));
  const count = Object.keys(values.counted).length;
  const wrong = Object.entries(form.troubles).find(([place]) => place.startsWith('lines'))?.[1] ?? '';
  let shelf: string | null = null;

  return (
    <article className="sheet max-w-[820px] px-7 py-5" aria-label="Count the stock">
      <Form of={form} legend="What lies there">
        <div className="flex flex-wrap items-baseline gap-4">
          <h1 className="title-screen min-w-0 flex-1">Count the stock</h1>
          <Button type="submit" look="go" busy={form.busy} busyWords="Booking" disabled={count === 0}>
            {count === 0 ? 'Book counts' : count === 1 ? 'Book 1 count' : `Book ${count} counts`}
          </Button>
        </div>
        <p className="document text-soft">
          Write what lies on the shelf, with what is sold and not packed yet. Only what you write is booked; the rest
          stays as it is.
        </p>
        <div className="grid gap-4 sm:grid-cols-2">
          <Field
            label="Why (stands in the log)"
            value={values.why}
            maxLength={200}
            placeholder="Count of the year"
            onChange={(event) => set({ why: event.target.value })}
          />
          <div>
            <label className="label mb-1" htmlFor="read-a-code">
              Read a code: one more of it
            </label>
            <input
              id="read-a-code"
              ref={field}
              className="input"
              value={read}
              autoComplete="off"
              onChange={(event) => setRead(event.target.value)}
              onKeyDown={(event) => {
                if (event.key !== 'Enter') return;
                event.preventDefault();
                onePiece(read);
              }}
            />
          </div>
        </div>
        {says || wrong || trouble ? (
          <p role="status" className="font-medium text-brick">
            {says || wrong || trouble}
          </p>
        ) : null}
        <ul>
          {sorted.map((thing) => {
            const isFirst = thing.shelf !== shelf;
            shelf = thing.shelf;
            const typed = values.counted[thing.id];
            const off = typed ? Number(typed.counted) - Number(typed.expected) : 0;
            return (
              <li key={thing.id}>
                {isFirst ? (
                  <h2 className="border-b border-ink pb-1 pt-4 text-[12.5px]/5 font-semibold">
                    {thing.shelf || 'Without a shelf'}
                  </h2>
                ) : null}
                <div className="grid min-h-11 grid-cols-[minmax(0,1fr)_96px] items-center gap-x-4 border-b border-rule sm:grid-cols-[minmax(0,1fr)_110px_96px_110px]">
                  <span className="min-w-0 py-1">
                    <span className="block truncate font-serif text-[15.5px]/5 font-medium">{thing.name}</span>
                    <span className="small text-soft">{thing.code}</span>
                  </span>
                  <span className="small hidden text-right text-soft sm:block">
                    should be {spokenCount(thing.lies, sign)}
                  </span>
                  <NumberInput
                    className="input text-right"
                    aria-label={`Counted of ${thing.name}`}
                    value={typed?.counted ?? ''}
                    onChange={(event) => set({ counted: write(values.counted, thing, event.target.value) })}
                  />
                  <span
                    className={`small hidden sm:block ${off < 0 ? 'font-medium text-ochre' : off > 0 ? 'font-medium text-leaf' : 'text-soft'}`}
                  >
                    {!typed || Number.isNaN(off)
                      ? ''
                      : off === 0
                        ? 'as it should be'
                        : `${spokenCount(String(Math.round(Math.abs(off) * 10_000) / 10_000), sign)} ${off < 0 ? 'missing' : 'more'}`}
                  </span>
                </div>
              </li>
            );
          })}
        </ul>
        <ListDrop
          label="Take a count from a file"
          onRead={(rows) =>
            set({
              counted: rows.reduce(
                (counted, { thing: { id }, quantity }) => {
                  const thing = byId.get(id);
                  return thing ? write(counted, thing, quantity) : counted;
                },
                { ...values.counted } as Counted,
              ),
            })
          }
        />
      </Form>
    </article>
  );
}

'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useMemo, useState } from 'react';
import { decimalSignOf, spokenCount } from '@/core/money/typed';
import { useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Empty } from '../kit/empty';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';
import { type StockShown, stockHref } from './shown';
import { Strokes } from './strokes';

type Cursor = { readonly key: string; readonly itemId: string; readonly place: number };
export type StockRows = { readonly rows: readonly StockShown[]; readonly next: Cursor | null };

const columns = (sums: boolean): string =>
  sums
    ? 'lg:grid-cols-[minmax(180px,1.4fr)_70px_minmax(120px,1fr)_58px_66px_64px_66px_78px_76px]'
    : 'lg:grid-cols-[minmax(180px,1.4fr)_90px_minmax(140px,1fr)_66px_72px_72px_90px]';

/** What stock is kept of: how much lies there, what of it is promised, and what to order. */
export function StockDesk({
  first,
  words,
  lowOnly,
  about,
  sums,
  mayPack,
}: {
  first: StockRows;
  words: string;
  lowOnly: boolean;
  /** What all of it comes to, in a sentence. */
  about: string;
  sums: boolean;
  mayPack: boolean;
}) {
  const [more, setMore] = useState<{ after: string; rows: readonly StockShown[]; next: Cursor | null } | null>(null);
  const [busy, setBusy] = useState(false);
  const stamp = useMemo(() => first.rows.map(({ id, onHand }) => `${id}${onHand}`).join(), [first]);
  const own = more?.after === stamp ? more : null;
  const rows = own ? [...first.rows, ...own.rows] : first.rows;
  const next = own ? own.next : first.next;
  async function fetchMore() {
    if (!next) return;
    setBusy(true);
    const query = new URLSearchParams({
      ...{ words, low: lowOnly ? 'yes' : 'no', key: next.key, id: next.itemId, place: String(next.place) },
    });
    const answer = await send<StockRows>('GET', `/api/stock?${query}`);
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    setMore({ after: stamp, rows: [...(own?.rows ?? []), ...answer.value.rows], next: answer.value.next });
  }
  return (
    <div className="mx-auto max-w-[1180px] px-4 pb-12 pt-5 sm:px-7">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2">
        <h1 className="title-screen flex-1 sm:flex-none">Stock</h1>
        <p className="document order-last min-w-0 basis-full text-soft sm:order-none sm:flex-1 sm:basis-auto">
          {about}
        </p>
        {mayPack ? (
          <>
            <a className="link" href="/api/stock/file" download>
              As a file
            </a>
            <Link className="btn" href={'/deliver/stock/count' as Route}>
              Count
            </Link>
            <Link className="btn btn-go" href={'/deliver/stock/receive' as Route}>
              Receive goods
            </Link>
          </>
        ) : null}
      </div>
      <form action="/deliver/stock" role="search" className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-2">
        <input
          className="input max-w-[300px]"
          type="search"
          name="words"
          aria-label="Name or code"
          placeholder="Name or code"
          defaultValue={words}
          maxLength={120}
        />
        <TickField label="Only what to order" name="low" value="yes" defaultChecked={lowOnly} />
        <Button type="submit">Find</Button>
      </form>
      {rows.length === 0 ? (
        words || lowOnly ? (
          <p className="document py-6 text-soft">
            {lowOnly ? 'Nothing has to be ordered.' : 'Nothing of which stock is kept answers to that.'}
          </p>
        ) : (
          <Empty words="No stock is kept of anything yet. Tick “Count its stock” at an item, and what comes, goes and lies there is written down here.">
            <Link className="link" href={'/records/items' as Route}>
              Items
            </Link>
          </Empty>
        )
      ) : (
        <Rows rows={rows} sums={sums} />
      )}
      {next ? (
        <Button look="link" className="mt-3" disabled={busy} onClick={() => void fetchMore()}>
          {busy ? 'Fetching more' : 'Show more'}
        </Button>
      ) : null}
    </div>
  );
}

function Rows({ rows, sums }: { rows: readonly StockShown[]; sums: boolean }) {
  const sign = decimalSignOf(useDeskLocale());
  const head = 'small text-right text-soft';
  const figure = (text: string, look = '') => (
    <span className={`hidden text-right font-serif text-[15px]/5 lg:block ${look}`}>{spokenCount(text, sign)}</span>
  );
  return (
    <div className="sheet mt-4 px-5 py-3">
      <div className={`hidden items-baseline gap-x-3 border-b border-ink pb-1 lg:grid ${columns(sums)}`}>
        <span className="small text-soft">What</span>
        <span className="small text-soft">Shelf</span>
        <span />
        <span className={head}>On hand</span>
        <span className={head}>Promised</span>
        <span className={head}>Free</span>
        {sums ? (
          <>
            <span className={head}>Cost of one</span>
            <span className={head}>Worth</span>
          </>
        ) : null}
        <span className={head}>To order</span>
      </div>
      <ul>
        {rows.map((row) => (
          <li key={row.id}>
            <Link
              href={stockHref(row) as Route}
              className={`grid min-h-[42px] grid-cols-[minmax(0,1fr)_auto] items-center gap-x-3 border-b border-rule hover:bg-[color-mix(in_srgb,var(--rule)_35%,transparent)] ${columns(sums)}`}
            >
              <span className="min-w-0 py-1">
                <span className="block truncate font-serif text-[15.5px]/5 font-medium">{row.name}</span>
                <span className="small block truncate text-soft lg:hidden">
                  {[row.code, row.shelf, row.promised === '0' ? '' : `${spokenCount(row.promised, sign)} promised`]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
                <span className="small hidden truncate text-soft lg:block">
                  {[row.code, row.unit ? `by the ${row.unit}` : ''].filter(Boolean).join(' · ')}
                </span>
              </span>
              <span className="small hidden truncate lg:block">{row.shelf}</span>
              <span className="hidden min-w-0 lg:block">
                <Strokes
                  onHand={Number(row.onHand)}
                  promised={Number(row.promised)}
                  lowAt={row.lowAt ? Number(row.lowAt) : null}
                />
              </span>
              <span
                className={`text-right font-serif text-[15px]/5 ${row.onHand.startsWith('-') ? 'font-medium text-brick' : ''}`}
              >
                {spokenCount(row.onHand, sign)}
                <span className="small text-soft lg:hidden"> on hand</span>
              </span>
              {figure(row.promised === '0' ? '–' : row.promised)}
              {figure(row.available, row.order ? 'font-medium text-ochre' : '')}
              {sums ? (
                <>
                  {figure(row.average || '–')}
                  {figure(row.worth || '–')}
                </>
              ) : null}
              {figure(row.order, 'font-medium')}
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}

'use client';
import { useState } from 'react';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';
import type { PackRowShown } from './shown';

type Cursor = { readonly key: string; readonly id: string };
export type PackRows = { readonly rows: readonly PackRowShown[]; readonly next: Cursor | null };

/** A page of the list as the server gave it, with further ones below on demand. */
function useMore(first: PackRows, address: string) {
  const [more, setMore] = useState<{ after: string; rows: readonly PackRowShown[]; next: Cursor | null } | null>(null);
  const [busy, setBusy] = useState(false);
  // A fresh first page with another end makes what was fetched below it stale.
  const own = more && more.after === first.next?.id ? more : null;
  const next = own ? own.next : first.next;
  async function fetchMore() {
    if (!next) return;
    setBusy(true);
    const answer = await send<PackRows>('GET', `${address}&key=${encodeURIComponent(next.key)}&id=${next.id}`);
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    const rows = [...(own?.rows ?? []), ...answer.value.rows];
    setMore({ after: first.next?.id ?? '', rows, next: answer.value.next });
  }
  return { rows: own ? [...first.rows, ...own.rows] : first.rows, next, busy, fetchMore: () => void fetchMore() };
}

function Row({
  row,
  paid,
  locale,
  zone,
  mayPack,
  onMove,
  onOpen,
}: {
  row: PackRowShown;
  /** What was paid for delivery, as written; empty for who sees no sums. */
  paid: string;
  locale: string;
  zone: string;
  mayPack: boolean;
  onMove: (row: PackRowShown) => void;
  onOpen: (row: PackRowShown) => void;
}) {
  const kept = row.kept !== '';
  const day = shortDate(dateInZone(new Date(row.readyAt), zone), locale, { weekday: true });
  return (
    <li className="grid min-h-11 grid-cols-[30px_minmax(0,1fr)_auto] items-center border-b border-rule pr-3">
      <Check
        aria-label={kept ? `${row.name} cannot go yet: ${row.kept}` : `Put ${row.name} on the paper`}
        data-pack-row={row.id}
        checked={false}
        disabled={!mayPack || kept}
        onChange={() => onMove(row)}
      />
      <button
        type="button"
        className="min-w-0 py-1 text-left"
        disabled={!mayPack}
        onClick={() => (kept ? onOpen(row) : onMove(row))}
      >
        <span className="name private block truncate text-[15.5px]/5">{row.name}</span>
        <span className={`private block truncate text-[12.5px]/[17px] ${kept ? 'text-ochre' : 'text-soft'}`}>
          {kept ? row.kept : row.what}
        </span>
      </button>
      <span className="pl-2 text-right">
        <span className="private block font-serif text-[15.5px]/5 font-medium">{paid}</span>
        <span className="block text-[12.5px]/[17px] text-soft">
          {row.wantedBy ? `by ${shortDate(row.wantedBy as never, locale)}` : day}
        </span>
      </span>
    </li>
  );
}

/** What waits to be packed: what could go, and what cannot yet, with the reason in place of the goods. */
export function PackList({
  ready,
  blocked,
  count,
  onPaper,
  words,
  paid,
  locale,
  zone,
  mayPack,
  onMove,
  onMoveAll,
  onTakeAllOff,
  onOpen,
}: {
  ready: PackRows;
  blocked: PackRows;
  count: { ready: number; blocked: number };
  onPaper: number;
  words: string;
  paid: Readonly<Record<string, string>>;
  locale: string;
  zone: string;
  mayPack: boolean;
  onMove: (row: PackRowShown) => void;
  onMoveAll: (rows: readonly PackRowShown[]) => void;
  onTakeAllOff: () => void;
  onOpen: (row: PackRowShown) => void;
}) {
  const search = `words=${encodeURIComponent(words)}`;
  const could = useMore(ready, `/api/pack?blocked=no&${search}`);
  const cannot = useMore(blocked, `/api/pack?blocked=yes&${search}`);
  const row = (one: PackRowShown) => (
    <Row
      key={one.id}
      row={one}
      paid={paid[one.id] ?? ''}
      locale={locale}
      zone={zone}
      mayPack={mayPack}
      onMove={onMove}
      onOpen={onOpen}
    />
  );
  return (
    <>
      {onPaper > 0 ? (
        <p className="flex h-[35px] items-baseline justify-between border-b border-rule pr-3 pt-2">
          <b className="text-[12.5px]/5 font-semibold">On the paper, {onPaper}</b>
          {mayPack ? (
            <Button look="small-link" onClick={onTakeAllOff}>
              Take all off
            </Button>
          ) : null}
        </p>
      ) : null}
      <section aria-label="Could go">
        <p className="flex h-[35px] items-baseline gap-3 border-b border-ink pr-3 pt-2">
          <b className="text-[12.5px]/5 font-semibold">
            {onPaper > 0 ? 'Could go too' : 'Could go'}, {count.ready}
          </b>
          {could.rows.length > 0 && mayPack ? (
            <Button look="small-link" onClick={() => onMoveAll(could.rows)}>
              {count.ready > could.rows.length ? `Add these ${could.rows.length}` : 'Add all'}
            </Button>
          ) : null}
          {Object.keys(paid).length > 0 ? <span className="small ml-auto text-soft">delivery paid</span> : null}
        </p>
        {could.rows.length === 0 ? (
          <p className="document py-3 text-soft">
            {words
              ? 'Nothing that waits answers to that.'
              : onPaper > 0
                ? 'All that could go lies on the paper.'
                : 'Nothing to pack. The next paid sale with delivery comes here.'}
          </p>
        ) : (
          <ul>{could.rows.map(row)}</ul>
        )}
        {could.next ? (
          <Button look="small-link" className="my-1" disabled={could.busy} onClick={could.fetchMore}>
            {could.busy ? 'Fetching more' : 'Show more'}
          </Button>
        ) : null}
      </section>
      {cannot.rows.length > 0 ? (
        <section aria-label="Cannot go yet">
          <p className="flex h-[39px] items-baseline border-b border-ink pt-3">
            <b className="text-[12.5px]/5 font-semibold">Cannot go yet, {count.blocked}</b>
          </p>
          <ul>{cannot.rows.map(row)}</ul>
          {cannot.next ? (
            <Button look="small-link" className="my-1" disabled={cannot.busy} onClick={cannot.fetchMore}>
              Show more
            </Button>
          ) : null}
        </section>
      ) : null}
    </>
  );
}

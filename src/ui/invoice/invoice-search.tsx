'use client';
import { SlidersHorizontal } from 'lucide-react';
import type { Route } from 'next';
import { useParams, useRouter } from 'next/navigation';
import { Popover } from 'radix-ui';
import { type ReactNode, useCallback, useEffect, useRef, useState } from 'react';
import { ASKED_STATES, EVERYTHING, type InvoiceAsk, isNarrowed, type Sort, STATE_WORDS } from '@/core/invoice/ask';
import { isDayOrNone } from '@/core/paper/paper';
import { Figure } from '../amount';
import { NameDialog } from '../composer/name-dialog';
import { DayField } from '../day-input';
import { Field, SelectField } from '../field';
import { FileDrop } from '../import/file-drop';
import { type ListRow, ListRowLink } from '../list/list-row';
import { send, troubleOf } from '../send';
import { say, sayTrouble } from '../toasts';
import { CancelDialog } from './sheet-dialogs';

type Page = { rows: readonly ListRow[]; next: { key: string; id: string } | null };
type Saved = { readonly id: string; readonly name: string; readonly asked: InvoiceAsk };

const PAUSE_MS = 160;
const SORT_WORDS: Readonly<Record<Sort, string>> = { due: 'Due date', issued: 'Day of issue', total: 'Total' };

const queryOf = (ask: InvoiceAsk): URLSearchParams =>
  new URLSearchParams(
    Object.entries(ask)
      .filter(([, value]) => value !== '')
      .map(([key, value]) => [key, String(value)]),
  );

/** Saves what an address answers as a file of this computer. */
async function download(path: string, body: object): Promise<boolean> {
  try {
    const response = await fetch(path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    if (!response.ok) return false;
    const name = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'file';
    const href = URL.createObjectURL(await response.blob());
    const link = document.createElement('a');
    link.href = href;
    link.download = decodeURIComponent(name);
    link.click();
    URL.revokeObjectURL(href);
    return true;
  } catch {
    return false;
  }
}

/**
 * The invoices' list: in its groups while nothing is asked, else what is asked for, page by page by key. What is found can be
 * ticked and dealt with together.
 */
export function InvoiceSearch({
  counts,
  saved,
  groups,
  locale,
  stamp,
  mayAsk,
  children,
}: {
  /** What stands beside each state: how many, and their sum. */
  counts: Readonly<Record<string, string>>;
  saved: readonly Saved[];
  groups: readonly string[];
  locale: string;
  /** New whenever the rows changed: what is asked is then asked again. */
  stamp: string;
  mayAsk: boolean;
  children: ReactNode;
}) {
  const router = useRouter();
  const { id: open } = useParams<{ id?: string }>();
  const [ask, setAsk] = useState<InvoiceAsk>(EVERYTHING);
  const [page, setPage] = useState<Page | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [choosing, setChoosing] = useState(false);
  const [naming, setNaming] = useState(false);
  const [cancelling, setCancelling] = useState(false);
  const [busy, setBusy] = useState(false);
  const key = useRef('');
  const set = (part: Partial<InvoiceAsk>) => setAsk((before) => ({ ...before, ...part }));
  const asked = isNarrowed(ask) || ask.sort !== EVERYTHING.sort || ask.descending !== EVERYTHING.descending || choosing;

  const fetchPage = useCallback(async (of: InvoiceAsk, after: Page['next'], signal?: AbortSignal) => {
    const query = queryOf(of);
    if (after) {
      query.set('key', after.key);
      query.set('id', after.id);
    }
    return send<Page>('GET', `/api/invoices/search?${query}`, undefined, signal ? { signal } : {});
  }, []);

  // biome-ignore lint/correctness/useExhaustiveDependencies: `stamp` is what says that it has to be asked again
  useEffect(() => {
    if (!asked) return setPage(null);
    const stop = new AbortController();
    const timer = setTimeout(async () => {
      const answer = await fetchPage(ask, null, stop.signal);
      if (stop.signal.aborted) return;
      if (answer.ok) setPage(answer.value);
      else sayTrouble(answer.words);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      stop.abort();
    };
  }, [ask, asked, stamp, fetchPage]);

  async function more() {
    if (!page?.next) return;
    setBusy(true);
    const answer = await fetchPage(ask, page.next);
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    setPage({ rows: [...page.rows, ...answer.value.rows], next: answer.value.next });
  }

  const ids = [...chosen];
  async function action(name: 'remind' | 'cancel', extra: { reason: string; tell: boolean }): Promise<string> {
    setBusy(true);
    key.current ||= crypto.randomUUID();
    const body = { ids, action: name, requestKey: key.current, ...extra };
    const answer = await send<{ done: number; refused: { words: string }[] }>('POST', '/api/invoices/many', body);
    setBusy(false);
    if (!answer.ok) return answer.words;
    key.current = '';
    const { done, refused } = answer.value;
    const words = name === 'remind' ? `${done} reminded` : `${done} cancelled`;
    if (refused[0]) sayTrouble(`${words}, ${refused.length} not: ${refused[0].words}`);
    else say(words);
    setChosen(new Set());
    router.refresh();
    return '';
  }
  async function file(form: 'csv' | 'ubl' | 'pdf') {
    setBusy(true);
    const done = await download('/files/invoices/many', { ids, form });
    setBusy(false);
    if (!done) sayTrouble('The file could not be made. Try again in a moment.');
  }
  async function bringIn(picked: File) {
    setBusy(true);
    try {
      const response = await fetch(`/api/einvoice?name=${encodeURIComponent(picked.name)}`, {
        method: 'POST',
        body: picked,
      });
      const answer = (await response.json()) as
        | { ok: true; value: { id: string } }
        | { ok: false; words: string; fields: { words: string }[] };
      if (answer.ok) router.push(`/ask/compose/${answer.value.id}` as Route);
      else sayTrouble(troubleOf(answer));
    } catch {
      sayTrouble('No connection. Choose the file again in a moment.');
    }
    setBusy(false);
  }

  const value = ask.state ? `state:${ask.state}` : '';
  return (
    <>
      <div className="flex items-center gap-2 pb-1.5">
        <input
          type="search"
          className="input"
          aria-label="Find invoices"
          placeholder="Number, name, reference or sum"
          value={ask.words}
          onChange={(event) => set({ words: event.target.value })}
        />
        <Popover.Root>
          <Popover.Trigger className="btn !px-2.5" aria-label="Narrow the list, sort it, and more">
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
                <DayField
                  label="Issued from"
                  value={ask.from}
                  onDay={(day) => isDayOrNone(day) && set({ from: day })}
                />
                <DayField label="to" value={ask.to} onDay={(day) => isDayOrNone(day) && set({ to: day })} />
                <Field
                  label="Total from"
                  inputMode="decimal"
                  value={ask.least}
                  onChange={(event) => set({ least: event.target.value })}
                />
                <Field
                  label="to"
                  inputMode="decimal"
                  value={ask.most}
                  onChange={(event) => set({ most: event.target.value })}
                />
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
                <button type="button" className="link" onClick={() => setAsk(EVERYTHING)}>
                  Ask nothing
                </button>
                {mayAsk ? (
                  <button type="button" className="link" disabled={!isNarrowed(ask)} onClick={() => setNaming(true)}>
                    Keep this list
                  </button>
                ) : null}
              </div>
              {mayAsk ? (
                <FileDrop
                  label={busy ? 'Reading it' : 'Bring in an invoice'}
                  accept=".xml,.pdf,application/xml,application/pdf"
                  hint="an e-invoice (UBL), or a PDF made elsewhere"
                  onFile={bringIn}
                />
              ) : null}
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      </div>
      <div className="flex items-center gap-2 pb-2">
        <select
          aria-label="State"
          className="input !min-h-[30px] flex-1"
          value={value}
          onChange={(event) => {
            const [kind, name = ''] = event.target.value.split(':');
            if (kind === 'saved') setAsk({ ...EVERYTHING, ...saved.find(({ id }) => id === name)?.asked });
            else set({ state: name as InvoiceAsk['state'] });
          }}
        >
          <option value="">All states</option>
          {ASKED_STATES.map((state) => (
            <option key={state} value={`state:${state}`}>
              {STATE_WORDS[state]}
              {counts[state] ? `, ${counts[state]}` : ''}
            </option>
          ))}
          {saved.length > 0 ? (
            <optgroup label="Kept lists">
              {saved.map((list) => (
                <option key={list.id} value={`saved:${list.id}`}>
                  {list.name}
                </option>
              ))}
            </optgroup>
          ) : null}
        </select>
        <button
          type="button"
          className="link link-small flex-none"
          aria-pressed={choosing}
          onClick={() => {
            setChoosing(!choosing);
            setChosen(new Set());
          }}
        >
          {choosing ? 'Done' : 'Several'}
        </button>
      </div>
      {choosing ? (
        <div
          className="mb-2 flex flex-wrap items-center gap-x-3.5 gap-y-1 bg-wash px-3 py-1.5"
          role="group"
          aria-label="With the ticked ones"
        >
          <b className="font-semibold">{ids.length} ticked</b>
          <button
            type="button"
            className="link link-small"
            onClick={() =>
              setChosen(
                new Set(page?.rows.filter(({ href }) => href.startsWith('/ask/invoices/')).map((row) => row.id)),
              )
            }
          >
            All shown
          </button>
          {mayAsk ? (
            <>
              <button
                type="button"
                className="link link-small"
                disabled={busy || ids.length === 0}
                onClick={async () => {
                  const trouble = await action('remind', { reason: '', tell: true });
                  if (trouble) sayTrouble(trouble);
                }}
              >
                Remind
              </button>
              <button
                type="button"
                className="link link-small"
                disabled={busy || ids.length === 0}
                onClick={() => setCancelling(true)}
              >
                Cancel
              </button>
            </>
          ) : null}
          {(
            [
              ['csv', 'CSV'],
              ['ubl', 'E-invoices'],
              ['pdf', 'Print'],
            ] as const
          ).map(([form, words]) => (
            <button
              key={form}
              type="button"
              className="link link-small"
              disabled={busy || ids.length === 0}
              onClick={() => void file(form)}
            >
              {words}
            </button>
          ))}
        </div>
      ) : null}
      {asked && page ? (
        <>
          {page.rows.length === 0 ? <p className="px-1 py-4 text-soft">No invoice like that.</p> : null}
          <ul aria-label="Found invoices" className="border-t border-ink">
            {page.rows.map((row) =>
              choosing && row.href.startsWith('/ask/invoices/') ? (
                <li key={row.id}>
                  <label className="flex items-center gap-2 border-b border-rule hover:bg-wash">
                    <input
                      type="checkbox"
                      className="size-4 flex-none accent-plum"
                      checked={chosen.has(row.id)}
                      onChange={(event) => {
                        const next = new Set(chosen);
                        if (event.target.checked) next.add(row.id);
                        else next.delete(row.id);
                        setChosen(next);
                      }}
                    />
                    <span className="min-w-0 flex-1 py-1.5">
                      <span className="name private block truncate">{row.name}</span>
                      <span className="block truncate text-soft">{row.under}</span>
                    </span>
                    <span className="pr-3 font-serif">
                      <Figure minor={row.minor} currency={row.currency} locale={locale} />
                    </span>
                  </label>
                </li>
              ) : (
                <ListRowLink key={row.id} row={row} open={row.id === open} locale={locale} />
              ),
            )}
          </ul>
          {page.next ? (
            <button type="button" className="link link-small mt-2" disabled={busy} onClick={() => void more()}>
              {busy ? 'Fetching more' : 'Show more'}
            </button>
          ) : null}
        </>
      ) : (
        children
      )}
      <NameDialog
        open={naming}
        title="Keep this list"
        about="What is asked now is kept under a name, for everybody at this desk."
        label="Name"
        action="Keep list"
        onClose={() => setNaming(false)}
        onName={async (name) => {
          const answer = await send('POST', '/api/saved', { name, asked: ask });
          if (!answer.ok) return troubleOf(answer);
          setNaming(false);
          say(`“${name}” is kept`);
          router.refresh();
          return '';
        }}
      />
      {cancelling ? (
        <CancelDialog
          busy={busy}
          onClose={() => setCancelling(false)}
          onCancel={async (extra) => {
            const trouble = await action('cancel', extra);
            if (!trouble) setCancelling(false);
            return trouble;
          }}
        />
      ) : null}
    </>
  );
}

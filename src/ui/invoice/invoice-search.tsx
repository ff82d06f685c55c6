'use client';
import { useParams } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import { ASKED_STATES, EVERYTHING, type InvoiceAsk, isNarrowed, STATE_WORDS } from '@/core/invoice/ask';
import { Button } from '../kit/button';
import { Select } from '../kit/select';
import { SaveListDialog } from '../list/save-list';
import { usePages } from '../list/use-pages';
import { canTick, FoundInvoices } from './found-invoices';
import { SearchPanel } from './search-panel';
import { TickedInvoices } from './ticked-invoices';

type Saved = { readonly id: string; readonly name: string; readonly asked: InvoiceAsk };

/**
 * The invoices' list: in its groups while nothing is asked, else what is asked for, page by page by key. What is found can be
 * ticked and dealt with together.
 */
export function InvoiceSearch({
  counts,
  saved,
  groups,
  names,
  locale,
  stamp,
  mayAsk,
  children,
}: {
  /** What stands beside each state: how many, and their sum. */
  counts: Readonly<Record<string, string>>;
  saved: readonly Saved[];
  groups: readonly string[];
  names: readonly { readonly id: string; readonly name: string }[];
  locale: string;
  /** New whenever the rows changed: what is asked is then asked again. */
  stamp: string;
  mayAsk: boolean;
  children: ReactNode;
}) {
  const { id: open } = useParams<{ id?: string }>();
  const [ask, setAsk] = useState<InvoiceAsk>(EVERYTHING);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [choosing, setChoosing] = useState(false);
  const [naming, setNaming] = useState(false);
  const set = (part: Partial<InvoiceAsk>) => setAsk((before) => ({ ...before, ...part }));
  const asked = isNarrowed(ask) || ask.sort !== EVERYTHING.sort || ask.descending !== EVERYTHING.descending || choosing;

  const { page, busy, more } = usePages('/api/invoices/search', ask, asked, stamp);

  const tick = (id: string, ticked: boolean) => {
    const next = new Set(chosen);
    if (ticked) next.add(id);
    else next.delete(id);
    setChosen(next);
  };
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
        <SearchPanel ask={ask} groups={groups} names={names} mayAsk={mayAsk} set={set} onName={() => setNaming(true)} />
      </div>
      <div className="flex items-center gap-2 pb-2">
        <Select
          aria-label="State"
          className="!min-h-[30px] flex-1"
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
            <optgroup label="Saved lists">
              {saved.map((list) => (
                <option key={list.id} value={`saved:${list.id}`}>
                  {list.name}
                </option>
              ))}
            </optgroup>
          ) : null}
        </Select>
        <Button
          look="small-link"
          className="flex-none"
          aria-pressed={choosing}
          onClick={() => {
            setChoosing(!choosing);
            setChosen(new Set());
          }}
        >
          {choosing ? 'Done' : 'Several'}
        </Button>
      </div>
      {choosing ? (
        <TickedInvoices
          ids={[...chosen]}
          mayAsk={mayAsk}
          onAll={() => setChosen(new Set(page?.rows.filter(canTick).map((row) => row.id)))}
          onDone={() => setChosen(new Set())}
        />
      ) : null}
      {asked && page ? (
        <>
          {page.rows.length === 0 ? <p className="px-1 py-4 text-soft">No invoice like that.</p> : null}
          <FoundInvoices
            rows={page.rows}
            open={open}
            choosing={choosing}
            chosen={chosen}
            locale={locale}
            onTick={tick}
          />
          {page.next ? (
            <Button
              look="small-link"
              className="mt-2"
              busy={busy}
              onClick={() => void more()}
              busyWords="Fetching more"
            >
              Show more
            </Button>
          ) : null}
        </>
      ) : (
        children
      )}
      <SaveListDialog open={naming} path="/api/saved" asked={ask} onClose={() => setNaming(false)} />
    </>
  );
}

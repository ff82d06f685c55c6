'use client';
import { useState } from 'react';
import type { JsonFound } from '../find/json-found';
import { useFinding } from '../kit/use-finding';
import { NARROWED_BY, type NarrowingField } from './narrowing';

type Hit = JsonFound & { readonly deed: string | null };

/** Finds a customer, an offer, a plan, a partner or an item by its name, to narrow the register to. */
export function NarrowTo({ onChoose }: { onChoose: (field: NarrowingField, id: string, name: string) => void }) {
  const [open, setOpen] = useState(false);
  const take = (found: readonly Hit[]) => {
    const first = narrowing(found)[0];
    if (first) choose(first);
  };
  const { words, found, type, onKeyDown } = useFinding<Hit>('/api/find', open, take, 2);
  const hits = narrowing(found ?? []).slice(0, 7);
  function choose({ kind, id, name, number }: Hit) {
    const by = NARROWED_BY[kind];
    if (!by) return;
    type('');
    onChoose(by.field as NarrowingField, id, name || number);
  }
  return (
    <div>
      <label className="grid gap-1">
        <span className="text-[12.5px]/[18px] text-soft">Of a customer, offer, plan, partner or item</span>
        <input
          type="search"
          className="input"
          placeholder="Type a name"
          value={words}
          onFocus={() => setOpen(true)}
          onChange={(event) => {
            setOpen(true);
            type(event.target.value);
          }}
          onKeyDown={onKeyDown}
        />
      </label>
      {words.trim().length >= 2 && hits.length > 0 ? (
        <ul aria-label="Found" className="mt-1 border-t border-rule">
          {hits.map((hit) => (
            <li key={`${hit.kind} ${hit.id}`}>
              <button type="button" className="menu-item w-full" onClick={() => choose(hit)}>
                <span className="private min-w-0 flex-1 truncate text-left">{hit.name || hit.number}</span>
                <span className="text-soft">{NARROWED_BY[hit.kind]?.words}</span>
              </button>
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}

const narrowing = (found: readonly Hit[]): Hit[] => found.filter(({ kind, deed }) => !deed && NARROWED_BY[kind]);

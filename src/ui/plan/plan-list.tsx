'use client';
import { useEffect, useState } from 'react';
import { PLAN_STATE_WORDS, type PlanState } from '@/core/plan/state';
import { Select } from '../kit/select';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';
import { ListGroups } from '../list/list-group';
import type { ListRow } from '../list/list-row';

const PAUSE_MS = 160;

/** A plan in its list. */
export type JsonPlan = ListRow;

const HEADS = ['Active', 'Paused', 'Waiting for card', 'Drafts', 'Ended'].map((name) => ({ name }));

/** The plans, found by typing and narrowed by how they stand. */
export function PlanList({
  rows,
  counts,
  locale,
}: {
  rows: readonly JsonPlan[];
  counts: readonly { state: PlanState; count: number; refused: number }[];
  locale: string;
}) {
  const [words, setWords] = useState('');
  const [show, setShow] = useState<PlanState | 'refused' | ''>('');
  const [found, setFound] = useState<readonly JsonPlan[] | null>(null);
  const refused = counts.reduce((sum, one) => sum + one.refused, 0);
  useEffect(() => {
    if (!words.trim() && !show) return setFound(null);
    const asked = new AbortController();
    const timer = setTimeout(async () => {
      const query = new URLSearchParams({ words: words.trim(), show });
      const answer = await send<JsonPlan[]>('GET', `/api/plans?${query.toString()}`, undefined, {
        signal: asked.signal,
      });
      if (asked.signal.aborted) return;
      if (answer.ok) setFound(answer.value);
      else sayTrouble(answer.words);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      asked.abort();
    };
  }, [words, show]);
  const shown = found ?? rows;
  return (
    <>
      <div className="flex items-center gap-2 pb-1">
        <input
          type="search"
          aria-label="Customer, plan, last four digits"
          placeholder="Name, plan, last digits"
          className="input"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
        <Select
          aria-label="Which plans"
          className="!w-[150px] flex-none"
          value={show}
          onChange={(event) => setShow(event.target.value as PlanState | 'refused' | '')}
        >
          <option value="">All</option>
          {refused > 0 ? <option value="refused">Refused ({refused})</option> : null}
          {counts.map(({ state, count }) => (
            <option key={state} value={state}>
              {PLAN_STATE_WORDS[state]} ({count})
            </option>
          ))}
        </Select>
      </div>
      {shown.length === 0 ? <p className="px-2 py-4 text-soft">No plan like that.</p> : null}
      <ListGroups rows={shown} next={null} more="" locale={locale} heads={HEADS} />
    </>
  );
}

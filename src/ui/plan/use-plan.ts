'use client';
import { useEffect, useRef, useState } from 'react';
import type { PlanTerms } from '@/core/plan/plan';
import { type Answer, send, troubleOf } from '../kit/send';

type Kept = { readonly id: string; readonly revision: number };

const PAUSE_MS = 700;

/**
 * Keeps a plan while it is composed, once it can be kept at all: one writing after the other, each saying which revision it
 * changes. `words` is null as long as nobody is chosen who pays.
 */
export function usePlanKeeping(
  first: Kept | null,
  words: { readonly terms: PlanTerms; readonly memo: string; readonly reference: string } | null,
) {
  const [kept, setKept] = useState(first);
  const [trouble, setTrouble] = useState('');
  const current = useRef(first);
  const text = words ? JSON.stringify(words) : '';
  const [keptText, setKeptText] = useState(first ? text : '');
  const newest = useRef(text);
  newest.current = text;
  const saving = useRef<Promise<unknown>>(Promise.resolve());
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  async function write(): Promise<string | null> {
    const sent = newest.current;
    if (!sent) return null;
    const body = JSON.parse(sent) as object;
    const before = current.current;
    const answer: Answer<Kept> = before
      ? await send('PUT', `/api/plans/${before.id}`, { ...body, revision: before.revision })
      : await send('POST', '/api/plans', body);
    setTrouble(troubleOf(answer));
    if (!answer.ok) return null;
    current.current = answer.value;
    setKept(answer.value);
    setKeptText(sent);
    // Its address from now on; the page is the same, so nothing typed is taken away.
    if (!before) window.history.replaceState(null, '', `/ask/plans/compose?plan=${answer.value.id}`);
    return answer.value.id;
  }

  /** Keeps what is typed now. Resolves with the plan's id, or null where it could not be kept. */
  function keep(): Promise<string | null> {
    clearTimeout(timer.current);
    const next = saving.current.then(write);
    saving.current = next.catch(() => undefined);
    return next;
  }

  // biome-ignore lint/correctness/useExhaustiveDependencies: what is typed starts the clock, nothing else
  useEffect(() => {
    if (!text || text === keptText) return;
    timer.current = setTimeout(() => void keep(), PAUSE_MS);
    return () => clearTimeout(timer.current);
  }, [text]);

  return { kept, keep, trouble, changed: text !== keptText };
}

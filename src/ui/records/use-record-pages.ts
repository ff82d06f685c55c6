'use client';
import { useEffect, useState } from 'react';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';

/** A record in its list. */
export type RecordRow = {
  readonly id: string;
  readonly href: string;
  readonly name: string;
  readonly under: string;
  readonly right: string;
  /** A word of its own at the right, below: a group, a warning. */
  readonly mark: string;
};

type Cursor = { readonly key: string; readonly id: string };
export type RecordPage = { rows: readonly RecordRow[]; next: Cursor | null };

const PAUSE_MS = 150;

/**
 * Records by name: found as one types, further pages on demand. Nothing typed shows what the server sent with the page.
 *
 * @param path where pages are asked for, with `words` and the cursor
 */
export function useRecordPages(first: RecordPage, path: string) {
  const [words, setWords] = useState('');
  const [found, setFound] = useState<RecordPage | null>(null);
  const [further, setFurther] = useState<{ from: RecordPage; page: RecordPage } | null>(null);
  const [busy, setBusy] = useState(false);
  const address = (after: Cursor | null) => {
    const asked = new URLSearchParams({
      ...(words.trim() ? { words: words.trim() } : {}),
      ...(after ? { key: after.key, id: after.id } : {}),
    });
    return `${path}${path.includes('?') ? '&' : '?'}${asked}`;
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: `first` is new when rows changed, and the search is then asked again
  useEffect(() => {
    if (!words.trim()) return setFound(null);
    const asked = new AbortController();
    const timer = setTimeout(async () => {
      const answer = await send<RecordPage>('GET', address(null), undefined, { signal: asked.signal });
      if (answer.ok && !asked.signal.aborted) setFound(answer.value);
    }, PAUSE_MS);
    return () => {
      clearTimeout(timer);
      asked.abort();
    };
  }, [words, first]);

  const base = found ?? first;
  const more = further?.from === base ? further.page : null;
  const rows = more ? [...base.rows, ...more.rows] : base.rows;
  const next = more ? more.next : base.next;

  async function showMore() {
    if (!next) return;
    setBusy(true);
    const answer = await send<RecordPage>('GET', address(next));
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    setFurther({ from: base, page: { rows: [...(more?.rows ?? []), ...answer.value.rows], next: answer.value.next } });
  }

  return { words, setWords, rows, next, busy, showMore };
}

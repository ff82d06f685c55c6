'use client';
import { useCallback, useEffect, useState } from 'react';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';
import type { ListRow } from './list-row';

type Page = { rows: readonly ListRow[]; next: { key: string; id: string } | null };

const PAUSE_MS = 160;

/** What is asked, as an address has it: what is empty asks nothing. */
type Ask = Readonly<Record<string, string | boolean>>;

export const queryOf = (ask: Ask): URLSearchParams =>
  new URLSearchParams(
    Object.entries(ask)
      .filter(([, value]) => value !== '')
      .map(([key, value]) => [key, String(value)]),
  );

/**
 * What is found of what is asked, page by page; null while nothing is asked.
 *
 * @param path the address that answers
 * @param stamp new whenever the rows changed: what is asked is then asked again
 */
export function usePages(
  path: string,
  ask: Ask,
  asked: boolean,
  stamp: string,
): { page: Page | null; busy: boolean; more: () => Promise<void> } {
  const [page, setPage] = useState<Page | null>(null);
  const [busy, setBusy] = useState(false);

  const fetchPage = useCallback(
    async (of: Ask, after: Page['next'], signal?: AbortSignal) => {
      const query = queryOf(of);
      if (after) {
        query.set('key', after.key);
        query.set('id', after.id);
      }
      return send<Page>('GET', `${path}?${query}`, undefined, signal ? { signal } : {});
    },
    [path],
  );

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

  return { page, busy, more };
}

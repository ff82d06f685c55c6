'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Block, HostedPage } from '@/core/page/page';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { BLOCK_NAMES } from './block-editor';

const PAUSE_MS = 500;

/** A page that keeps itself after each change, one save at a time. `shown` goes up with each that is kept. */
export function usePage(id: string, first: HostedPage) {
  const [page, setPage] = useState(first);
  const [state, setState] = useState<'kept' | 'waits'>('kept');
  const [shown, setShown] = useState(0);
  const saving = useRef<Promise<unknown>>(Promise.resolve());
  const isFirst = useRef(true);
  const keep = useCallback(
    (one: HostedPage): Promise<boolean> => {
      const next = saving.current.then(async () => {
        const answer = await send('PUT', `/api/offers/${id}/publish`, { look: one });
        if (!answer.ok) {
          sayTrouble(answer.words);
          return false;
        }
        setState('kept');
        setShown((count) => count + 1);
        return true;
      });
      saving.current = next.catch(() => undefined);
      return next;
    },
    [id],
  );

  useEffect(() => {
    if (isFirst.current) {
      isFirst.current = false;
      return;
    }
    setState('waits');
    const timer = setTimeout(() => void keep(page), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [page, keep]);

  const blocks = useCallback(
    (change: (before: readonly Block[]) => readonly Block[]) =>
      setPage((before) => ({ ...before, blocks: change(before.blocks) })),
    [],
  );
  const change = useCallback(
    (blockId: string, part: Partial<Block>) =>
      blocks((before) => before.map((one) => (one.id === blockId ? { ...one, ...part } : one))),
    [blocks],
  );
  const copy = useCallback(
    (blockId: string) =>
      blocks((before) =>
        before.flatMap((one) => (one.id === blockId ? [one, { ...one, id: crypto.randomUUID() }] : [one])),
      ),
    [blocks],
  );
  const remove = useCallback(
    (blockId: string) => {
      setPage((before) => {
        const at = before.blocks.findIndex((one) => one.id === blockId);
        const gone = before.blocks[at];
        if (gone)
          say(`${BLOCK_NAMES[gone.kind]} is removed`, {
            label: 'Undo',
            onClick: () => blocks((now) => [...now.slice(0, at), gone, ...now.slice(at)]),
          });
        return { ...before, blocks: before.blocks.filter((one) => one.id !== blockId) };
      });
    },
    [blocks],
  );
  return { page, setPage, state, shown, keep, blocks, change, copy, remove };
}

'use client';
import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { computerMemory } from '../kit/memory';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';
import { DraftKeeper } from './draft-keeper';
import type { Kept } from './draft-state';

const known = new Map<string, Kept>();

/**
 * A draft that keeps itself.
 *
 * @param page the draft as the page has it
 * @param onGone the draft was sent or thrown away elsewhere
 * @param held nothing is kept by itself: a sent invoice is changed, and only when the person says so
 */
export function useDraft(id: string, page: Kept, onGone: (why: 'sent' | 'thrown-away') => void, held = false) {
  const gone = useRef(onGone);
  gone.current = onGone;
  const [keeper] = useState(
    () =>
      new DraftKeeper(id, page, crypto.randomUUID(), {
        send: (draft, last = false) => send('PUT', `/api/invoices/${id}`, draft, last ? { keepalive: true } : {}),
        store: computerMemory,
        known,
        onGone: (why) => gone.current(why),
        held,
      }),
  );
  const { paper, keeping, revision } = useSyncExternalStore(keeper.subscribe, keeper.view, keeper.view);

  useEffect(() => {
    const restore = keeper.takeUp();
    if (restore)
      sayTrouble('Words typed here before were not saved, and the draft has changed since.', {
        label: 'Use them',
        onClick: restore,
      });
    window.addEventListener('online', keeper.again);
    window.addEventListener('pagehide', keeper.leave);
    return () => {
      window.removeEventListener('online', keeper.again);
      window.removeEventListener('pagehide', keeper.leave);
      keeper.close();
    };
  }, [keeper]);
  useEffect(() => keeper.renew(page), [keeper, page]);

  const { change, flush, letGo, latestRevision } = keeper;
  return { paper, change, keeping, revision, flush, letGo, latestRevision };
}

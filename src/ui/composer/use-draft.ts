'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Paper } from '@/core/paper/paper';
import { send } from '../send';
import { sayTrouble } from '../toasts';

/** How keeping stands: all kept, on its way, or only on this computer, with the reason. */
export type Keeping =
  | { readonly state: 'kept'; readonly at: Date | null }
  | { readonly state: 'keeping' }
  | { readonly state: 'here-only'; readonly words: string };

type Backup = { readonly paper: Paper; readonly revision: number };

const PAUSE_MS = 500;
const AGAIN_MS = 3000;
const backupName = (id: string): string => `dahlia:draft:${id}`;

function backupOf(id: string): Backup | null {
  try {
    return JSON.parse(localStorage.getItem(backupName(id)) ?? 'null') as Backup | null;
  } catch {
    return null;
  }
}

/**
 * A draft that keeps itself: each change goes to this computer at once and to the server after a short pause, one save at
 * a time; without a connection it is tried again. What a reload or a crash left unsaved is taken up again.
 *
 * @param onGone the draft was sent or thrown away elsewhere
 * @param held nothing is kept by itself: a sent invoice is changed, and only when the person says so
 */
export function useDraft(
  id: string,
  first: Paper,
  firstRevision: number,
  onGone: (why: 'sent' | 'thrown-away') => void,
  held = false,
) {
  const [paper, setPaper] = useState(first);
  const [keeping, setKeeping] = useState<Keeping>({ state: 'kept', at: null });
  const [revision, setRevision] = useState(firstRevision);
  const current = useRef({ paper: first, revision: firstRevision, dirty: false });
  const opened = useRef(firstRevision);
  const saving = useRef<Promise<boolean> | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const save = useCallback(async (): Promise<boolean> => {
    clearTimeout(timer.current);
    if (saving.current) {
      await saving.current;
      if (!current.current.dirty) return true;
    }
    const run = async (): Promise<boolean> => {
      const { paper: sent, revision: at } = current.current;
      current.current.dirty = false;
      setKeeping({ state: 'keeping' });
      const answer = await send<{ revision: number; keptAt: string }>('PUT', `/api/invoices/${id}`, {
        paper: sent,
        revision: at,
      });
      if (answer.ok) {
        current.current.revision = answer.value.revision;
        setRevision(answer.value.revision);
        if (!current.current.dirty) localStorage.removeItem(backupName(id));
        setKeeping({ state: 'kept', at: new Date(answer.value.keptAt) });
        return true;
      }
      current.current.dirty = true;
      setKeeping({ state: 'here-only', words: answer.words });
      if (answer.code === 'draft-already-sent' || answer.code === 'not-found') {
        localStorage.removeItem(backupName(id));
        current.current.dirty = false;
        onGone(answer.code === 'draft-already-sent' ? 'sent' : 'thrown-away');
      } else if (answer.code === 'unreachable' || answer.code === 'trouble') {
        timer.current = setTimeout(() => void save(), AGAIN_MS);
      }
      return false;
    };
    saving.current = run();
    const done = await saving.current;
    saving.current = null;
    return done;
  }, [id, onGone]);

  const change = useCallback(
    (edit: (paper: Paper) => Paper) => {
      const next = edit(current.current.paper);
      current.current.paper = next;
      current.current.dirty = true;
      setPaper(next);
      if (held) return;
      try {
        localStorage.setItem(
          backupName(id),
          JSON.stringify({ paper: next, revision: current.current.revision } satisfies Backup),
        );
      } catch {
        // Full or forbidden: the server still keeps it after the pause.
      }
      clearTimeout(timer.current);
      timer.current = setTimeout(() => void save(), PAUSE_MS);
    },
    [id, save, held],
  );

  // What was typed and not kept before the page was left is taken up again, unless somebody kept something since.
  useEffect(() => {
    if (held) return;
    const backup = backupOf(id);
    const restore = () => backup && change(() => backup.paper);
    if (backup?.revision === opened.current) restore();
    else if (backup)
      sayTrouble('Words typed here before were not kept, and the draft has changed since.', {
        label: 'Use them',
        onClick: restore,
      });
    const again = () => void (current.current.dirty && save());
    const leave = () => {
      if (!current.current.dirty) return;
      const { paper: last, revision: at } = current.current;
      void send('PUT', `/api/invoices/${id}`, { paper: last, revision: at }, { keepalive: true });
    };
    window.addEventListener('online', again);
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('online', again);
      window.removeEventListener('pagehide', leave);
      clearTimeout(timer.current);
      if (current.current.dirty) void save();
    };
  }, [id, change, save, held]);

  // The server has a later one than this window, and nothing is waiting here: kept by another window, or by this page's
  // own last breath before a reload that was answered with what stood before.
  useEffect(() => {
    if (firstRevision <= current.current.revision || current.current.dirty || saving.current) return;
    current.current = { paper: first, revision: firstRevision, dirty: false };
    setPaper(first);
    setRevision(firstRevision);
  }, [first, firstRevision]);

  /** Makes sure that the server has all of it. */
  const flush = useCallback(() => (current.current.dirty || saving.current ? save() : Promise.resolve(true)), [save]);
  /** Lets go of what is not kept yet, and waits until nothing is on its way: the draft is about to be thrown away. */
  const letGo = useCallback(async () => {
    clearTimeout(timer.current);
    current.current.dirty = false;
    await saving.current;
    clearTimeout(timer.current);
    current.current.dirty = false;
    localStorage.removeItem(backupName(id));
  }, [id]);
  const latestRevision = useCallback(() => current.current.revision, []);
  return { paper, change, keeping, revision, flush, letGo, latestRevision };
}

'use client';
import { useEffect, useRef, useState } from 'react';
import { windowMemory } from '../kit/memory';
import { send, troubleOf } from '../kit/send';

const PAUSE_MS = 600;

/** What the business prepares as its answer: words, papers, and what of the known stays out. */
export type Prepared = {
  readonly words: string;
  readonly files: readonly { readonly id: string; readonly name: string }[];
  readonly leftOut: readonly string[];
};

const bodyOf = ({ words, files, leftOut }: Prepared) => ({ words, fileIds: files.map(({ id }) => id), leftOut });

/** An answer that keeps itself: after a pause, when it is left, and over a reload in the middle of a word. */
export function useAnswer(disputeId: string, prepared: Prepared) {
  const path = `/api/disputes/${disputeId}`;
  const name = `dahlia:answer:${disputeId}`;
  const [answer, setAnswer] = useState(prepared);
  const [trouble, setTrouble] = useState('');
  const [keeping, setKeeping] = useState<'' | 'kept' | 'being-kept'>('');
  const waiting = useRef<Prepared | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  /** Keeps what stands there; true once the server has it. */
  async function keep(): Promise<boolean> {
    clearTimeout(timer.current);
    const now = waiting.current;
    if (!now) return true;
    waiting.current = null;
    const said = await send('PUT', path, bodyOf(now));
    if (!said.ok) {
      waiting.current ??= now;
      setTrouble(troubleOf(said));
      return false;
    }
    setTrouble('');
    if (waiting.current) return keep();
    windowMemory.removeItem(name);
    setKeeping('kept');
    return true;
  }

  function change(part: Partial<Prepared>) {
    const next = { ...(waiting.current ?? answer), ...part };
    setAnswer(next);
    setKeeping('being-kept');
    waiting.current = next;
    windowMemory.setItem(name, JSON.stringify(next));
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void keep(), PAUSE_MS);
  }

  const latest = useRef({ keep, change });
  latest.current = { keep, change };
  useEffect(() => {
    // What a reload left unsaved is taken up again.
    const left = windowMemory.getItem(name);
    if (left) latest.current.change(JSON.parse(left) as Prepared);
    const leave = () => void latest.current.keep();
    window.addEventListener('pagehide', leave);
    return () => {
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [name]);

  return { answer, change, keep, keeping, trouble, setTrouble };
}

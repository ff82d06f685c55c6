import { type Challenge, type Solution, solveChallenge } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/web/pbkdf2';
import { useEffect, useRef } from 'react';
import { send } from '../kit/send';

/** A piece of work with its solution. */
type Work = { readonly challenge: Challenge; readonly solution: Solution };

/** Fetches a piece of work and does it; null where there was no connection. @param path where it is set */
export async function doneWork(path: string): Promise<Work | null> {
  const answer = await send<Challenge>('GET', path);
  if (!answer.ok) return null;
  const solution = await solveChallenge({ challenge: answer.value, deriveKey });
  return solution ? { challenge: answer.value, solution } : null;
}

/** Work done ahead while the payer reads; each piece is handed in once, and the next is begun when it is asked for. */
export function useWork(path: string): () => Promise<{ work: Work } | null> {
  const begun = useRef<Promise<Work | null> | null>(null);
  useEffect(() => {
    const timer = setTimeout(() => {
      begun.current ??= doneWork(`${path}/challenge`);
    }, 800);
    return () => clearTimeout(timer);
  }, [path]);
  return async () => {
    const mine = begun.current ?? doneWork(`${path}/challenge`);
    begun.current = null;
    const work = await mine;
    return work && { work };
  };
}

'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useCallback, useRef, useState, useTransition } from 'react';
import { send } from './kit/send';
import { sayTrouble } from './kit/toasts';

/**
 * Makes something at the server and opens its page. Busy until that page is there and not only until the answer came, so that a
 * second press on a slow line makes no second one.
 */
export function useMakeAndOpen() {
  const router = useRouter();
  const [making, setMaking] = useState(false);
  const [opening, startOpening] = useTransition();
  const under = useRef(false);
  const busy = making || opening;

  /** @param pathOf where what was made is found, by its id */
  const makeAndOpen = useCallback(
    async (address: string, body: object, pathOf: (id: string) => string): Promise<void> => {
      if (under.current || opening) return;
      under.current = true;
      setMaking(true);
      const answer = await send<{ id: string }>('POST', address, body);
      under.current = false;
      if (answer.ok) startOpening(() => router.push(pathOf(answer.value.id) as Route));
      else sayTrouble(answer.words);
      setMaking(false);
    },
    [router, opening],
  );
  /** A new invoice, empty or from what is given, in the composer. @param byKey whoever begins by key goes on by key: who pays is asked at once */
  const compose = useCallback(
    (from: object = {}, byKey = false) =>
      makeAndOpen('/api/invoices', from, (id) => `/ask/compose/${id}${byKey ? '?by=key' : ''}`),
    [makeAndOpen],
  );
  return { busy, makeAndOpen, compose };
}

'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Choice } from '@/core/offer/choice';
import type { ShownQuote } from '@/core/offer/shown';
import type { AttemptStatus } from '../payer/card-pay';
import { send } from '../send';

type Kept = { readonly key: string; readonly choice: Choice };

const PAUSE_MS = 180;

function restored(place: string): Kept | null {
  try {
    return JSON.parse(sessionStorage.getItem(place) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}

/**
 * What a payer chose and wrote, kept in this tab so that a reload or the way over the bank loses nothing, and worked out anew
 * by the server with every change.
 *
 * @param path of the checkout's own interface @param more what every request says beside the choice
 */
export function useCheckout(
  path: string,
  begun: Choice,
  first: ShownQuote,
  more: { readonly request: string; readonly locale: string },
) {
  const place = `checkout ${path} ${more.request}`;
  const [choice, setChoice] = useState(begun);
  const [key, setKey] = useState('');
  const [quote, setQuote] = useState(first);
  const [touched, setTouched] = useState<ReadonlySet<string>>(new Set());
  const [asked, setAsked] = useState(false);
  const [waiting, setWaiting] = useState(false);
  const [status, setStatus] = useState<AttemptStatus | null>(null);
  const token = useRef(first.token);
  const { request, locale } = more;

  // What this tab knows already; and what became of it, where something was tried.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, as the page begins
  useEffect(() => {
    const known = restored(place);
    setKey(known?.key ?? crypto.randomUUID());
    // On a slow connection people write before the page listens: what stands in the fields already is taken over.
    const early = Object.fromEntries(
      (['name', 'email', 'phone'] as const).flatMap((field) => {
        const typed = document.querySelector<HTMLInputElement>(`input[data-asked="${field}"]`)?.value;
        return typed ? [[field, typed]] : [];
      }),
    );
    if (!known && Object.keys(early).length > 0) setChoice({ ...begun, ...early });
    if (!known) return setStatus({ state: 'none' });
    setChoice({ ...begun, ...known.choice, acceptsTerms: false, agrees: false });
    void send<AttemptStatus>('GET', `${path}/status?checkout=${known.key}`).then((answer) =>
      setStatus(answer.ok ? answer.value : { state: 'none' }),
    );
  }, []);

  const work = useCallback(
    async (whole: Choice, signal?: AbortSignal) => {
      const body = { choice: whole, quote: token.current, request, locale };
      const answer = await send<ShownQuote>('POST', `${path}/quote`, body, signal ? { signal } : {});
      if (!answer.ok || signal?.aborted) return;
      token.current = answer.value.token;
      setQuote(answer.value);
      setWaiting(false);
    },
    [path, request, locale],
  );

  // The first sum came with the page; each change is worked out after a breath.
  const isFirst = useRef(true);
  useEffect(() => {
    if (!key) return;
    sessionStorage.setItem(place, JSON.stringify({ key, choice } satisfies Kept));
    if (isFirst.current && choice === begun) return;
    isFirst.current = false;
    setWaiting(true);
    const control = new AbortController();
    const timer = setTimeout(() => void work(choice, control.signal), PAUSE_MS);
    return () => {
      clearTimeout(timer);
      control.abort();
    };
  }, [choice, key, place, begun, work]);

  const change = useCallback((part: Partial<Choice>, ...fields: string[]) => {
    setChoice((before) => ({ ...before, ...part }));
    if (fields.length > 0) setTouched((before) => new Set([...before, ...fields]));
  }, []);

  const problemOf = (field: string): string | undefined =>
    asked || touched.has(field) ? quote.problems.find((problem) => problem.field === field)?.words : undefined;

  return {
    choice,
    change,
    quote,
    waiting,
    checkoutKey: key,
    status,
    problemOf,
    /** Works out the newest sum at once, where it is still to come. */
    hasten: () => void work(choice),
    /** Leaves a field: from now on what is wrong with it is said. */
    leave: (field: string) => setTouched((before) => new Set([...before, field])),
    /** From now on everything that is missing is said. */
    askForAll: () => setAsked(true),
    /** Works the sum out anew, against what holds now. */
    renew: () => {
      token.current = '';
      void work(choice);
    },
    /** This checkout has been paid: the next one in this tab is another. */
    forget: () => sessionStorage.removeItem(place),
  };
}

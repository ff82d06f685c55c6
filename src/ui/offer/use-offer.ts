'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { Offer } from '@/core/offer/offer';
import { type Answer, send } from '../kit/send';

/** What a composer holds of an offer. */
export type OfferDraft = {
  readonly name: string;
  readonly offer: Offer;
  readonly look: Readonly<Record<string, unknown>>;
  readonly sites: readonly string[];
};

const PAUSE_MS = 600;

/**
 * An offer while it is composed. Until it is placed it keeps itself as one types; what is placed changes only when somebody says so,
 * since payers read it: what is typed is kept beside it until then.
 *
 * @param edited what was edited of a placed one and not kept yet
 */
export function useOffer(
  id: string,
  first: OfferDraft,
  firstRevision: number,
  placed: boolean,
  edited: OfferDraft | null = null,
) {
  const router = useRouter();
  const [draft, setDraft] = useState(edited ?? first);
  const [kept, setKept] = useState(first);
  // What stands beside the placed one already.
  const [beside, setBeside] = useState(edited);
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const [revision, setRevision] = useState(firstRevision);
  const current = useRef(firstRevision);
  const saving = useRef<Promise<unknown>>(Promise.resolve());
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const changed = draft !== kept;

  function note(answer: Answer<unknown>): boolean {
    setTrouble(answer.ok ? '' : answer.words);
    setTroubles(
      answer.ok
        ? {}
        : Object.fromEntries(answer.fields.map(({ field, words }) => [field.replace(/^offer\./, ''), words])),
    );
    return answer.ok;
  }

  async function write(one: OfferDraft): Promise<boolean> {
    const answer = await send<{ revision: number }>('PUT', `/api/offers/${id}`, { revision: current.current, ...one });
    if (answer.ok) {
      current.current = answer.value.revision;
      setRevision(answer.value.revision);
      setKept(one);
      setBeside(null);
    }
    return note(answer);
  }

  /** One writing after the other: each says which revision it changes. What waited to be kept is kept with it, and not once more. */
  function keep(): Promise<boolean> {
    clearTimeout(timer.current);
    const next = saving.current.then(() => write(draft));
    saving.current = next.catch(() => undefined);
    return next;
  }

  // biome-ignore lint/correctness/useExhaustiveDependencies: what is typed starts the clock, nothing else
  useEffect(() => {
    if (!changed || draft === beside) return;
    timer.current = setTimeout(() => void (placed ? keepBeside() : keep()), PAUSE_MS);
    return () => clearTimeout(timer.current);
  }, [draft]);

  /** Keeps what is typed beside what is placed, in turn with all other writing. */
  function keepBeside(): void {
    const one = draft;
    const next = saving.current.then(async () => {
      const answer = await send('PUT', `/api/offers/${id}/draft`, { revision: current.current, ...one });
      if (note(answer)) setBeside(one);
    });
    saving.current = next.catch(() => undefined);
  }

  /** Throws away what was edited: what is placed stands there again. */
  async function discard(): Promise<void> {
    clearTimeout(timer.current);
    await saving.current;
    if (!note(await send('DELETE', `/api/offers/${id}/draft`))) return;
    setBeside(null);
    setDraft(kept);
  }

  const set = (part: Partial<Offer>) => setDraft((before) => ({ ...before, offer: { ...before.offer, ...part } }));

  async function keepNow(): Promise<boolean> {
    setBusy(true);
    const done = await keep();
    setBusy(false);
    if (done) router.refresh();
    return done;
  }

  /** Keeps it and places it. */
  async function place(): Promise<boolean> {
    setBusy(true);
    const done = (await keep()) && note(await send('POST', `/api/offers/${id}/place`, {}));
    setBusy(false);
    return done;
  }

  return {
    draft,
    offer: draft.offer,
    set,
    setDraft,
    changed,
    isBeside: placed && changed && draft === beside,
    discard,
    revision,
    busy,
    trouble,
    troubles,
    keepNow,
    place,
  };
}

export type OfferEditing = ReturnType<typeof useOffer>;

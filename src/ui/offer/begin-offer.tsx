'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Placement } from '@/core/offer/offer';
import { send } from '../send';
import { sayTrouble } from '../toasts';

/** Begins an offer, or a copy of one, and opens its composer. @param from the offer to be copied */
export function BeginOffer({
  placement,
  words,
  from,
  className = 'link',
}: {
  placement: Placement;
  words: string;
  from?: string;
  className?: string;
}) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  async function begin() {
    setBusy(true);
    const answer = await send<{ id: string }>('POST', '/api/offers', { placement, ...(from ? { from } : {}) });
    setBusy(false);
    if (answer.ok) router.push(`/ask/offer/${answer.value.id}` as Route);
    else sayTrouble(answer.words);
  }
  return (
    <button type="button" className={className} disabled={busy} onClick={() => void begin()}>
      {words}
    </button>
  );
}

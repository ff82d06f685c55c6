'use client';
import type { Placement } from '@/core/offer/offer';
import { useMakeAndOpen } from '../make-and-open';

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
  const { busy, makeAndOpen } = useMakeAndOpen();
  const begin = () => makeAndOpen('/api/offers', { placement, ...(from ? { from } : {}) }, (id) => `/ask/offer/${id}`);
  return (
    <button type="button" className={className} disabled={busy} onClick={() => void begin()}>
      {words}
    </button>
  );
}

'use client';
import Link from 'next/link';
import type { Placement } from '@/core/offer/offer';
import { Button } from '../kit/button';
import { useMakeAndOpen } from '../make-and-open';

const OTHERS: readonly (readonly [words: string, placement: Placement])[] = [
  ['a payment link', 'link'],
  ['a hosted page', 'page'],
  ['a button', 'button'],
];

/** The other ways to ask for money, for whoever does not begin with an invoice. */
export function OrBeginWith() {
  const { busy, makeAndOpen } = useMakeAndOpen();
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 gap-y-1 text-soft">
      Or begin with
      {OTHERS.map(([words, placement]) => (
        <Button
          key={placement}
          look="link"
          disabled={busy}
          onClick={() => void makeAndOpen('/api/offers', { placement }, (id) => `/ask/offer/${id}`)}
        >
          {words}
        </Button>
      ))}
      <Link href="/ask/plans/compose" className="link">
        a billing plan
      </Link>
    </p>
  );
}

'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { decimalSignOf, spokenCount } from '@/core/money/typed';
import { useDeskLocale } from '../kit/at-desk';
import { Button } from '../kit/button';
import { stockHref } from '../stock/shown';

/** How many there are of what is kept already: it changes by receipts, sales and counts, and not here. */
export function KeptOnHand({
  itemId,
  optionId,
  onHand,
  onEnd,
}: {
  itemId: string;
  optionId: string | null;
  onHand: string;
  /** Where its keeping can be ended beside it. */
  onEnd?: () => void;
}) {
  const sign = decimalSignOf(useDeskLocale());
  return (
    <div className="min-w-[84px] pb-1">
      <span className="label mb-1">On hand</span>
      <Link
        className="link inline-flex min-h-6 min-w-6 items-center font-serif text-[15.5px]"
        href={stockHref({ itemId, optionId }) as Route}
      >
        {spokenCount(onHand, sign)}
      </Link>
      {onEnd ? (
        <Button look="small-link" className="block" onClick={onEnd}>
          Stop counting
        </Button>
      ) : null}
    </div>
  );
}

'use client';
import { useState } from 'react';
import type { LabelSheet } from '@/core/parcel/profile';
import { Button } from '../kit/button';
import { PrintLabels } from '../pack/print-labels';

/** How many labels nobody printed yet, and the way to print them. */
export function LabelsBeside({
  ids,
  declared,
  sheet,
  own,
}: {
  ids: readonly string[];
  declared: readonly string[];
  sheet: LabelSheet;
  own: { widthMm: number; heightMm: number };
}) {
  const [open, setOpen] = useState(false);
  return (
    <p className="flex flex-wrap items-center gap-4 py-3">
      <span className="document flex-1">
        {ids.length === 1 ? 'One label is bought' : `${ids.length} labels are bought`} and not printed yet.
      </span>
      <Button onClick={() => setOpen(true)}>{ids.length === 1 ? 'Print 1 label' : `Print ${ids.length} labels`}</Button>
      {open ? (
        <PrintLabels ids={ids} declared={declared} usual={sheet} own={own} onClose={() => setOpen(false)} />
      ) : null}
    </p>
  );
}

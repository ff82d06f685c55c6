'use client';
import { useMemo } from 'react';
import { sampleLines } from '@/core/invoice/sample';
import type { PaperLine } from '@/core/paper/paper';
import { Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { UNIT_SIGNS } from './line-row';

/** Lines that show how it looks, beside the paper's own: not counted and never sent, used by a press, or discarded. */
export function SampleLines({
  written,
  currency,
  locale,
  onUse,
  onDiscard,
}: {
  /** What the paper's own lines say: a sample that was used is shown no more. */
  written: readonly string[];
  currency: string;
  locale: string;
  onUse: (line: PaperLine) => void;
  onDiscard: () => void;
}) {
  const all = useMemo(() => sampleLines(currency, () => crypto.randomUUID()), [currency]);
  const samples = all.filter(({ line }) => !written.includes(line.what));
  if (samples.length === 0) return null;
  return (
    <section aria-label="Sample" className="mt-1 border-l-2 border-edge pl-3 sm:ml-[12px] sm:pl-5">
      <ul>
        {samples.map(({ line, netMinor }) => (
          <li
            key={line.id}
            className="grid grid-cols-[minmax(0,1fr)_auto_80px_auto] items-baseline gap-x-4 border-b border-rule py-1.5 font-serif text-[16px]/6 italic text-soft"
          >
            <span className="truncate">{line.what}</span>
            <span className="whitespace-nowrap">
              {line.quantity} {UNIT_SIGNS[line.unit]} × {line.price}
            </span>
            <span className="text-right">
              <Figure minor={netMinor} currency={currency} locale={locale} />
            </span>
            <Button
              look="small-link"
              className="not-italic"
              aria-label={`Use “${line.what}”`}
              onClick={() => onUse(line)}
            >
              Use
            </Button>
          </li>
        ))}
      </ul>
      <p className="small flex flex-wrap items-baseline gap-x-4 py-1.5 text-soft">
        A sample: it is not counted, and never sent.
        <Button look="small-link" onClick={onDiscard}>
          Discard the sample
        </Button>
      </p>
    </section>
  );
}

'use client';
import { type ReactNode } from 'react';

/** A part of the composer that folds out; what it holds now stands beside its name. */
export function Collapsible({
  name,
  now,
  open,
  children,
}: {
  name: string;
  now: string;
  open?: boolean;
  children: ReactNode;
}) {
  return (
    <details className="border-b border-rule" open={open}>
      <summary className="flex min-h-11 items-baseline gap-3 py-2.5">
        <span className="font-serif text-[16.5px]/6 font-medium">{name}</span>
        <span className="min-w-0 flex-1 truncate text-soft">{now}</span>
      </summary>
      <div className="grid gap-4 pb-5 pt-1">{children}</div>
    </details>
  );
}

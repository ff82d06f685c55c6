'use client';
import type { Route } from 'next';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { Amount, Figure } from '../kit/amount';
import { Rosette } from '../rosette';
import type { RosetteState } from '../rosette-geometry';

/** A row of a list beside its sheet; `minor` in minor units. */
export type ListRow = {
  readonly id: string;
  readonly href: string;
  readonly name: string;
  readonly under: string;
  readonly state: RosetteState;
  readonly share: number;
  readonly minor: number;
  readonly currency: string;
  /** In another currency than the business's own: its sign stands beside the figure. */
  readonly foreign?: boolean;
  readonly when: string;
  readonly late: boolean;
  readonly group: string;
};

/** A row of a list beside its sheet. The open one becomes the sheet: it reaches over the sheet's edge, in the sheet's colour. */
export function RowFrame({
  row,
  open,
  children,
}: {
  row: { readonly id: string; readonly href: string };
  open: boolean;
  children: ReactNode;
}) {
  return (
    <li className={open ? 'relative z-10 -ml-3 mr-0 xl:-mr-[21px]' : ''}>
      <Link
        href={row.href as Route}
        scroll={false}
        aria-current={open ? 'page' : undefined}
        data-row={row.id}
        className={`grid h-[54px] grid-cols-[36px_minmax(0,1fr)_auto] items-center border-b pl-0.5 pr-3 outline-offset-[-2px] ${
          open
            ? 'rounded-l-paper border-transparent bg-sheet pl-3.5 shadow-[-1px_1px_0_var(--rule),-1px_-1px_0_var(--rule)] xl:pr-[33px]'
            : 'border-rule hover:bg-[color-mix(in_srgb,var(--rule)_55%,transparent)]'
        }`}
      >
        {children}
      </Link>
    </li>
  );
}

/** What a row is called and what stands under it, between its mark and its right side. */
export function RowName({ row }: { row: { readonly name: string; readonly under: string } }) {
  return (
    <span className="min-w-0 pr-3">
      <span className="name private block truncate">{row.name}</span>
      <span className="block truncate text-[12.5px]/[17px] text-soft">{row.under}</span>
    </span>
  );
}

export function ListRowLink({ row, open, locale }: { row: ListRow; open: boolean; locale: string }) {
  return (
    <RowFrame row={row} open={open}>
      <Rosette state={row.state} share={row.share} />
      <RowName row={row} />
      <span className="text-right">
        <span className="name block">
          {row.foreign ? (
            <Amount minor={row.minor} currency={row.currency} locale={locale} />
          ) : (
            <Figure minor={row.minor} currency={row.currency} locale={locale} />
          )}
        </span>
        <span className={`block text-[12.5px]/[17px] ${row.late ? 'font-medium text-brick' : 'text-soft'}`}>
          {row.when}
        </span>
      </span>
    </RowFrame>
  );
}

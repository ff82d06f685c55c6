'use client';
import type { KeyboardEvent } from 'react';
import { money } from '@/core/money/money';
import { figureText } from '@/core/money/money-text';
import { Button } from '../kit/button';
import { BalanceBar } from './balance-bar';
import { ParcelOutline } from './parcel-outline';
import { CUSTOMS_ASK, type PaperRowShown } from './shown';

/** The columns of the paper: with sums, or for who sees none. */
export const columns = (sums: boolean): string =>
  sums
    ? 'lg:grid-cols-[42px_minmax(120px,180px)_minmax(0,1fr)_48px_52px_52px_52px_62px_10px_144px_20px]'
    : 'lg:grid-cols-[56px_minmax(140px,1fr)_minmax(0,1fr)_minmax(80px,160px)_22px]';

/** A parcel on the paper: whom for and what, where to and how, what was paid and what it costs. */
export function PaperRow({
  row,
  sums,
  most,
  currency,
  locale,
  mayPack,
  onOpen,
  onCustoms,
  onOff,
  onProfile,
}: {
  row: PaperRowShown;
  sums: boolean;
  /** The largest gain or loss on the paper, in minor units. */
  most: number;
  currency: string;
  locale: string;
  mayPack: boolean;
  onOpen: () => void;
  onCustoms: () => void;
  onOff: () => void;
  onProfile: () => void;
}) {
  const figure = (minor: number | null): string =>
    minor === null ? '–' : figureText(money(BigInt(minor), currency), locale);
  const { cost } = row;
  const says = [row.trouble, ...row.faults, ...row.warnings].filter(Boolean);
  function keyed(event: KeyboardEvent) {
    if (!mayPack) return;
    const act = { ' ': onOff, p: onProfile }[event.key];
    if (!act) return;
    event.preventDefault();
    event.stopPropagation();
    act();
  }
  const left = cost?.left ?? null;
  const number = (minor: number | null | undefined, strong = false) => (
    <span
      className={`private hidden text-right font-serif text-[15px]/5 lg:block ${strong ? 'font-medium' : ''} ${minor === 0 ? 'text-soft' : ''}`}
    >
      {minor === undefined ? '' : minor === 0 && !strong ? '–' : figure(minor)}
    </span>
  );
  return (
    <li
      className={`relative grid min-h-[38px] grid-cols-[56px_minmax(0,1fr)_auto_22px] items-center border-b border-rule focus-within:bg-petal ${columns(sums)}`}
    >
      <span>
        <ParcelOutline sides={row.sides} />
      </span>
      <span className="min-w-0 py-0.5">
        <button
          type="button"
          className="block w-full text-left"
          data-paper-row={row.id}
          disabled={!mayPack}
          onKeyDown={keyed}
          onClick={onOpen}
        >
          <span className="private block truncate font-serif text-[15px]/[18px] font-medium">{row.name}</span>
          <span className="private block truncate text-[12px]/4 text-soft">{row.what}</span>
        </button>
        <span className="block truncate text-[12px]/4 text-soft lg:hidden">
          {[row.profile, row.weight].filter(Boolean).join(' · ')}
        </span>
      </span>
      <span className="hidden min-w-0 py-0.5 pr-2 lg:block">
        <span className="private block truncate text-[12.5px]/[18px]">{row.where}</span>
        <span className="block truncate text-[12px]/4 text-soft" title={says.join('. ')}>
          {says.length > 0 && !(says.length === 1 && row.isBuyable && row.warnings.length === 0) ? (
            row.customs && row.customs.problems.length > 0 && says[0] === CUSTOMS_ASK && mayPack ? (
              <button type="button" className="link min-h-6 font-medium !text-ochre" onClick={onCustoms}>
                {says[0]}
              </button>
            ) : (
              <span className={row.trouble || !row.isBuyable ? 'font-medium text-ochre' : 'text-ochre'}>{says[0]}</span>
            )
          ) : (
            <>
              {row.profile}, {row.weight}
              {row.serviceName ? ` · ${row.serviceName}` : ''}
              {row.byRule ? '' : <span className="text-ink"> · by hand</span>}
            </>
          )}
        </span>
      </span>
      {sums ? (
        <>
          {number(cost?.paid)}
          {number(cost?.rate)}
          {number(cost?.packaging)}
          {number(cost?.insurance)}
          {number(cost?.total, true)}
          <span className="hidden lg:block" />
          <span className="h-full min-w-[96px]">
            <span className="hidden h-full lg:block">
              <BalanceBar
                left={left}
                most={most}
                text={left === null ? 'not known' : `${left > 0 ? '+' : ''}${figure(left)}`}
              />
            </span>
            <span
              className={`private block text-right font-serif text-[15px] lg:hidden ${left === null ? 'text-soft' : left < 0 ? 'text-ochre' : 'text-leaf'}`}
            >
              {left === null ? 'not known' : `${left > 0 ? '+' : ''}${figure(left)}`}
            </span>
            <span className="sr-only">
              {left === null
                ? 'cost not known'
                : left < 0
                  ? `${figure(-left)} short`
                  : left > 0
                    ? `${figure(left)} over`
                    : 'even'}
            </span>
          </span>
        </>
      ) : (
        <span className="small min-w-0 truncate text-right text-soft">
          {row.shelves.flatMap(({ shelf }) => (shelf ? [shelf] : [])).join(', ')}
        </span>
      )}
      <span className="text-right">
        {row.state === 'buying' ? (
          <span className="small text-dusk" title="Its label is asked for">
            …
          </span>
        ) : mayPack ? (
          <Button
            look="small-link"
            aria-label={`Take ${row.name} off the paper`}
            className="!no-underline"
            onClick={onOff}
          >
            ×
          </Button>
        ) : null}
      </span>
    </li>
  );
}

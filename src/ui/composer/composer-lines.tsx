'use client';
import { useMemo, useState } from 'react';
import type { PaperReading } from '@/core/invoice/read-paper';
import type { Paper } from '@/core/paper/paper';
import type { BusinessTax } from '@/core/tax/business-tax';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { SortableList } from '../kit/sortable-list';
import { ItemPicker } from './item-picker';
import { LINE_GRID, LineRow } from './line-row';
import type { ShownProblems } from './problems';
import type { useLines } from './use-lines';
import { useStock } from './use-stock';

const NO_PROBLEMS: Readonly<Record<string, string>> = {};

/** The lines of the paper, in their order, and what adds to them. */
export function ComposerLines({
  paper,
  reading: { counted, tally, document },
  problems,
  taxes,
  lines,
  chosen,
  locale,
  onTally,
  onKeep,
}: {
  paper: Paper;
  reading: PaperReading;
  problems: ShownProblems;
  taxes: readonly BusinessTax[];
  lines: ReturnType<typeof useLines>;
  /** The line whose tally is shown. */
  chosen: string;
  locale: string;
  onTally: (line: string) => void;
  onKeep: (line: string) => Promise<void>;
}) {
  const [active, setActive] = useState('');
  const short = useStock(paper.lines);
  const byLine = useMemo(
    () =>
      new Map(
        counted.map((line, at) => [
          line.id,
          { net: tally.lines[at]?.net ?? null, taxIds: (document.lines[at]?.taxes ?? []).join(' ') },
        ]),
      ),
    [counted, tally, document],
  );
  return (
    <>
      <div className={`${LINE_GRID} small hidden border-b border-ink pb-1 text-soft sm:grid`} aria-hidden="true">
        <span />
        <span>What</span>
        <span className="pr-2 text-right">How much</span>
        <span>Tax</span>
        <span className="pr-1 text-right">Amount</span>
      </div>
      <SortableList id="lines" label="Lines" ids={paper.lines.map((line) => line.id)} onMove={lines.moveLine}>
        {paper.lines.map((line, at) => (
          <LineRow
            key={line.id}
            line={line}
            at={at}
            net={byLine.get(line.id)?.net ?? null}
            taxIds={byLine.get(line.id)?.taxIds ?? line.taxes.join(' ')}
            problems={problems.byLine.get(line.id) ?? NO_PROBLEMS}
            short={short.get(line.id)}
            active={active === line.id}
            chosen={chosen === line.id}
            taxes={taxes}
            currency={document.currency}
            locale={locale}
            onChange={lines.changeLine}
            onRemove={lines.removeLine}
            onDuplicate={lines.duplicateLine}
            onMove={lines.moveLine}
            onPaste={lines.pasteInto}
            onEnter={lines.enter}
            onTally={onTally}
            onActive={setActive}
            onKeep={onKeep}
          />
        ))}
      </SortableList>
      <div className="flex flex-wrap gap-5 py-2.5 sm:pl-[34px]">
        <Button look="link" onClick={() => lines.addLine('hour')}>
          Add hours
        </Button>
        <Button look="link" onClick={() => lines.addLine('piece')}>
          Add goods
        </Button>
        <ItemPicker
          currency={document.currency}
          onChoose={(item, option) => lines.addItem(item, option, document.currency)}
        />
        {problems.of('lines') ? <FieldError>{problems.of('lines')}</FieldError> : null}
      </div>
    </>
  );
}

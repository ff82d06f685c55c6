'use client';
import { useCallback, useEffect, useRef } from 'react';
import { lineOfItem } from '@/core/invoice/item-line';
import { pastedLines } from '@/core/invoice/pasted-rows';
import type { Item, ItemOption } from '@/core/item/item';
import { decimalSignOf } from '@/core/money/typed';
import { MOST_LINES, newLine, type Paper, type PaperLine } from '@/core/paper/paper';
import { useDeskLocale } from '../kit/at-desk';
import { say } from '../kit/toasts';

/** Goes to a field of the paper by its place (`customer`, `LINE-ID.price`). */
export function focusField(field: string): void {
  const place = document.querySelector<HTMLElement>(`[data-field="${CSS.escape(field)}"]`);
  place?.focus();
  place?.scrollIntoView({ block: 'center' });
}

type Change = (edit: (paper: Paper) => Paper) => void;

const moved = (lines: readonly PaperLine[], from: number, to: number): readonly PaperLine[] => {
  const line = lines[from];
  return !line || to < 0 || to >= lines.length ? lines : lines.toSpliced(from, 1).toSpliced(to, 0, line);
};

/** What can be done to the lines. None of these changes from one key to the next, so that only the line in hand is drawn. */
export function useLines(paper: Paper, change: Change) {
  const sign = decimalSignOf(useDeskLocale());
  const focusNext = useRef('');
  const latest = useRef(paper);
  latest.current = paper;

  useEffect(() => {
    if (!focusNext.current) return;
    focusField(focusNext.current);
    focusNext.current = '';
  });

  const changeLine = useCallback(
    (id: string, part: Partial<PaperLine>) =>
      change((before) => ({
        ...before,
        lines: before.lines.map((one) => (one.id === id ? { ...one, ...part } : one)),
      })),
    [change],
  );

  /** Adds lines after one, or at the end; blank ones at the end give way. */
  const insert = useCallback(
    (fresh: readonly PaperLine[], after: string | null) => {
      const [first] = fresh;
      if (!first) return;
      change((before) => {
        const at = after === null ? before.lines.length - 1 : before.lines.findIndex((one) => one.id === after);
        const room = MOST_LINES - before.lines.length;
        if (room < fresh.length) say(`An invoice holds ${MOST_LINES} lines at most`);
        focusNext.current = `${first.id}.what`;
        return { ...before, lines: before.lines.toSpliced(at + 1, 0, ...fresh.slice(0, Math.max(room, 0))) };
      });
    },
    [change],
  );

  const addLine = useCallback(
    (unit: PaperLine['unit']) => {
      const { taxesBy, taxes, taxClass } = latest.current.lines.at(-1) ?? {};
      // A person who chose the taxes of the line above wants the same on the next.
      const like =
        taxesBy === 'place' || !taxes ? (taxClass ? { taxClass } : {}) : { taxesBy: 'person' as const, taxes };
      insert([newLine(crypto.randomUUID(), unit, like)], null);
    },
    [insert],
  );

  /** Adds a line that is written already; a blank one at the end gives way. */
  const addWritten = useCallback(
    (line: PaperLine, focus: string) =>
      change((before) => {
        const last = before.lines.at(-1);
        const blank = last && !last.what.trim() && !last.price.trim();
        focusNext.current = `${line.id}.${focus}`;
        return { ...before, lines: blank ? before.lines.toSpliced(-1, 1, line) : [...before.lines, line] };
      }),
    [change],
  );

  const addItem = useCallback(
    (item: Item, option: ItemOption | null, currency: string) =>
      addWritten(lineOfItem(crypto.randomUUID(), item, option, currency), 'quantity'),
    [addWritten],
  );

  const duplicateLine = useCallback(
    (id: string) => {
      const line = latest.current.lines.find((one) => one.id === id);
      if (line) insert([{ ...line, id: crypto.randomUUID() }], id);
    },
    [insert],
  );

  const removeLine = useCallback(
    (id: string) => {
      const at = latest.current.lines.findIndex((one) => one.id === id);
      const line = latest.current.lines[at];
      if (!line) return;
      change((before) => ({ ...before, lines: before.lines.filter((one) => one.id !== id) }));
      const takeBack = () => change((now) => ({ ...now, lines: now.lines.toSpliced(at, 0, line) }));
      say('The line is removed', { label: 'Undo', onClick: takeBack });
    },
    [change],
  );

  /** Moves a line up or down by keyboard, or to the place of another by drag. */
  const moveLine = useCallback(
    (id: string, to: -1 | 1 | string) =>
      change((before) => {
        const from = before.lines.findIndex((one) => one.id === id);
        const place = typeof to === 'string' ? before.lines.findIndex((one) => one.id === to) : from + to;
        if (typeof to === 'number') focusNext.current = `${id}.what`;
        return { ...before, lines: moved(before.lines, from, place) };
      }),
    [change],
  );

  /** Rows of a spreadsheet become lines in the place of a blank one, or after it; true if the text was rows. */
  const pasteInto = useCallback(
    (id: string, text: string): boolean => {
      const rows = pastedLines(text, MOST_LINES, sign);
      if (!rows) return false;
      const line = latest.current.lines.find((one) => one.id === id);
      const fresh = rows.map((row) => ({ ...newLine(crypto.randomUUID(), line?.unit ?? 'piece'), ...row }));
      insert(fresh, id);
      if (line && !line.what.trim() && !line.price.trim())
        change((before) => ({ ...before, lines: before.lines.filter((one) => one.id !== id) }));
      say(rows.length === 1 ? '1 line is added' : `${rows.length} lines are added`);
      return true;
    },
    [change, insert, sign],
  );

  /** Enter goes on to the next line, or begins it. */
  const enter = useCallback(
    (id: string) => {
      const { lines } = latest.current;
      const at = lines.findIndex((one) => one.id === id);
      const next = lines[at + 1];
      if (next) focusField(`${next.id}.what`);
      else addLine(lines[at]?.unit ?? 'piece');
    },
    [addLine],
  );
  return { changeLine, addLine, addItem, addWritten, duplicateLine, removeLine, moveLine, pasteInto, enter };
}

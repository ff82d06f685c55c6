import { addDays, type CalendarDate } from '../dates/calendar-date';
import { countText, scaledCount } from '../stock/available';

/** Why somebody sends something back. */
export const RETURN_REASONS = [
  'does-not-fit',
  'not-as-described',
  'damaged',
  'wrong-thing',
  'not-wanted',
  'other',
] as const;
export type ReturnReason = (typeof RETURN_REASONS)[number];

export const REASON_WORDS: Readonly<Record<ReturnReason, string>> = {
  'does-not-fit': 'It does not fit',
  'not-as-described': 'It is not as described',
  damaged: 'It came damaged',
  'wrong-thing': 'It is the wrong thing',
  'not-wanted': 'It is not wanted any more',
  other: 'Another reason',
};

/** How a return stands: asked for, allowed and awaited, refused, received and looked at, over. */
export const RETURN_STATES = ['asked', 'allowed', 'refused', 'received', 'closed'] as const;
export type ReturnState = (typeof RETURN_STATES)[number];

export const RETURN_WORDS: Readonly<Record<ReturnState, string>> = {
  asked: 'Asked for',
  allowed: 'Allowed, on its way',
  refused: 'Refused',
  received: 'Received',
  closed: 'Done',
};

/** A line of a sale, with how much of it came to the customer and when; decimals. */
export type HandedLine = {
  readonly line: number;
  readonly what: string;
  readonly came: readonly { readonly on: CalendarDate; readonly quantity: string }[];
};

/** A line that can be sent back, and how much of it at most. */
export type ReturnableLine = { readonly line: number; readonly what: string; readonly most: string };

/**
 * What of a sale can still be sent back: what came to the customer within so many days, less what was asked back already and not refused.
 *
 * @param days from the day on which it came; 0 where nothing is taken back
 */
export function returnable(
  lines: readonly HandedLine[],
  before: readonly {
    readonly state: ReturnState;
    readonly lines: readonly { readonly line: number; readonly quantity: string }[];
  }[],
  { days, today }: { readonly days: number; readonly today: CalendarDate },
): ReturnableLine[] {
  if (days <= 0) return [];
  const asked = new Map<number, bigint>();
  for (const one of before)
    if (one.state !== 'refused')
      for (const { line, quantity } of one.lines) asked.set(line, (asked.get(line) ?? 0n) + scaledCount(quantity));
  return lines.flatMap(({ line, what, came }) => {
    const lately = came.filter(({ on }) => addDays(on, days) >= today);
    const left = lately.reduce((sum, { quantity }) => sum + scaledCount(quantity), 0n) - (asked.get(line) ?? 0n);
    return left > 0n ? [{ line, what, most: countText(left) }] : [];
  });
}

/** What of a line was found good and lies in stock again, and what of it is thrown away; decimals. */
export type LookedAt = { readonly line: number; readonly toStock: string; readonly thrown: string };

/** Whether all that came back was looked at: each line as much as was awaited at most, and something at all. */
export function isLookedAt(
  awaited: readonly { readonly line: number; readonly quantity: string }[],
  looked: readonly LookedAt[],
): boolean {
  const most = new Map(awaited.map(({ line, quantity }) => [line, scaledCount(quantity)]));
  const sums = looked.map(({ line, toStock, thrown }) => ({ line, sum: scaledCount(toStock) + scaledCount(thrown) }));
  return (
    new Set(looked.map(({ line }) => line)).size === looked.length &&
    sums.some(({ sum }) => sum > 0n) &&
    sums.every(({ line, sum }) => sum <= (most.get(line) ?? 0n))
  );
}

import { addDays, type CalendarDate } from '../../dates/calendar-date';

/** A statement among others of its account; minor units. */
export type InSeries = {
  readonly id: string;
  readonly from: CalendarDate | null;
  readonly to: CalendarDate | null;
  readonly opening: bigint | null;
  readonly closing: bigint | null;
};

/** Something that is missing between two statements: what one ends with is not what the next begins with. */
export type Gap = {
  readonly after: string;
  readonly before: string;
  readonly from: CalendarDate | null;
  readonly to: CalendarDate | null;
  readonly minor: bigint;
};

/** Where statements of one account in one currency are missing, oldest first. @param statements in order of their days */
export function gapsOf(statements: readonly InSeries[]): Gap[] {
  const gaps: Gap[] = [];
  for (const [at, next] of statements.entries()) {
    const last = statements[at - 1];
    if (!last || last.closing === null || next.opening === null || last.closing === next.opening) continue;
    // One that covers the same days again, or lies within, is no gap.
    if (last.to && next.from && next.from <= last.to) continue;
    gaps.push({
      after: last.id,
      before: next.id,
      from: last.to && addDays(last.to, 1),
      to: next.from && addDays(next.from, -1),
      minor: next.opening - last.closing,
    });
  }
  return gaps;
}

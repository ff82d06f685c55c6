import type { CalendarDate } from '../dates/calendar-date';
import { type Schedule, type ScheduledDate, scheduledDates } from '../schedule/schedule';

/** Spans, both ends included, in which nothing is made; `why` where it was a refused charge and no person. */
export type Pauses = readonly { readonly from: CalendarDate; readonly to: CalendarDate; readonly why?: 'refused' }[];

/** The next dates after a nominal one (or from the first on), at most `limit`. */
export function comingDates(
  schedule: Schedule,
  pauses: Pauses,
  after: CalendarDate | null,
  limit: number,
): ScheduledDate[] {
  const dates: ScheduledDate[] = [];
  for (const date of scheduledDates(schedule, { pauses })) {
    if (after !== null && date.nominal <= after) continue;
    if (dates.push(date) >= limit) break;
  }
  return dates;
}

/** The dates from a nominal one on, itself included, that fall on a day up to `to`; none without a next one. */
export function datesWithin(
  schedule: Schedule,
  pauses: Pauses,
  next: CalendarDate | null,
  to: CalendarDate,
): ScheduledDate[] {
  const dates: ScheduledDate[] = [];
  if (next === null) return dates;
  for (const date of scheduledDates(schedule, { pauses })) {
    if (date.nominal > to && date.charged > to) break;
    if (date.nominal >= next && date.charged <= to) dates.push(date);
  }
  return dates;
}

const EVERY: Readonly<Record<Schedule['unit'], readonly [string, string]>> = {
  day: ['every day', 'days'],
  week: ['every week', 'weeks'],
  month: ['every month', 'months'],
  year: ['every year', 'years'],
};

/** `every month`, `every 2 weeks`. */
export const everyWords = ({ unit, every }: Pick<Schedule, 'unit' | 'every'>): string =>
  every === 1 ? EVERY[unit][0] : `every ${every} ${EVERY[unit][1]}`;

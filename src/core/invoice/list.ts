import { addDays, type CalendarDate, daysBetween } from '../dates/calendar-date';
import { shortDate } from '../dates/date-text';

/** The groups of the open list, in the order in which they are read. */
export type OpenGroup = 'Late' | 'Next two weeks' | 'Later';

/** Where an open invoice stands in the list. @param today in the business's zone */
export function openGroup(dueOn: CalendarDate, today: CalendarDate): OpenGroup {
  if (dueOn < today) return 'Late';
  return dueOn <= addDays(today, 14) ? 'Next two weeks' : 'Later';
}

/** `9 days late`, `today`, `Fri 28 Nov`. */
export function dueWords(dueOn: CalendarDate, today: CalendarDate, locale: string): string {
  const late = daysBetween(dueOn, today);
  if (late > 0) return late === 1 ? '1 day late' : `${late} days late`;
  if (late === 0) return 'today';
  return shortDate(dueOn, locale, { weekday: -late < 60, year: -late > 300 });
}

/** What is open in each group, in minor units of one currency, from the sums by day. */
export function openSums(
  days: readonly { readonly on: CalendarDate; readonly minor: bigint }[],
  today: CalendarDate,
): { readonly late: bigint; readonly soon: bigint; readonly later: bigint; readonly all: bigint } {
  const sums = { Late: 0n, 'Next two weeks': 0n, Later: 0n };
  for (const { on, minor } of days) sums[openGroup(on, today)] += minor;
  return {
    late: sums.Late,
    soon: sums['Next two weeks'],
    later: sums.Later,
    all: sums.Late + sums['Next two weeks'] + sums.Later,
  };
}

import { type CalendarDate, isCalendarDate } from '../dates/calendar-date';
import type { Schedule } from './schedule';

/** A schedule while it is written: everything as typed. */
export type TypedSchedule = {
  readonly unit: Schedule['unit'];
  readonly every: string;
  readonly start: string;
  /** Days of the month, such as `1, 15` or `last`; empty for the start's own. */
  readonly monthDays: string;
  /** 1 is Monday; empty for the start's own. */
  readonly weekdays: readonly number[];
  readonly ends: 'never' | 'on' | 'after';
  readonly endsOn: string;
  readonly count: string;
  readonly shift: NonNullable<Schedule['shift']>;
};

/** Every month from a day on, without an end. */
export const monthlyFrom = (start: CalendarDate): TypedSchedule => ({
  unit: 'month',
  every: '1',
  start,
  monthDays: '',
  weekdays: [],
  ends: 'never',
  endsOn: '',
  count: '12',
  shift: 'none',
});

/** A kept schedule as it is typed. */
export const typedSchedule = ({ unit, every, start, monthDays, weekdays, ends, shift }: Schedule): TypedSchedule => ({
  unit,
  every: String(every),
  start,
  monthDays: monthDays?.join(', ') ?? '',
  weekdays: weekdays ?? [],
  ends: ends === 'never' ? 'never' : 'on' in ends ? 'on' : 'after',
  endsOn: ends !== 'never' && 'on' in ends ? ends.on : '',
  count: ends !== 'never' && 'after' in ends ? String(ends.after) : '12',
  shift: shift ?? 'none',
});

/** Days of the month as typed; null where one is none. */
function daysTyped(text: string): (number | 'last')[] | null {
  const days = text.split(/[\s,;]+/).filter(Boolean);
  const read = days.map((one) => (/^last$/i.test(one) ? ('last' as const) : Number(one)));
  return read.every((one) => one === 'last' || (Number.isInteger(one) && one >= 1 && one <= 31)) ? read : null;
}

/**
 * What is typed as a schedule, or what to do about it; `field` names the place.
 *
 * @param mustEnd parts of a balance: one without an end ends after so many
 */
export function readSchedule(
  typed: TypedSchedule,
  mustEnd = false,
): { schedule: Schedule } | { field: keyof TypedSchedule; trouble: string } {
  const every = Number(typed.every);
  if (!Number.isInteger(every) || every < 1 || every > 366)
    return { field: 'every', trouble: 'Write how often as a whole number.' };
  if (!isCalendarDate(typed.start)) return { field: 'start', trouble: 'Choose the first day.' };
  const days = typed.unit === 'month' ? daysTyped(typed.monthDays) : [];
  if (days === null) return { field: 'monthDays', trouble: 'Write days from 1 to 31, or “last”.' };
  const ends = mustEnd && typed.ends === 'never' ? 'after' : typed.ends;
  const after = Number(typed.count);
  if (ends === 'on' && !isCalendarDate(typed.endsOn)) return { field: 'endsOn', trouble: 'Choose the last day.' };
  if (ends === 'after' && (!Number.isInteger(after) || after < 1 || after > 1000))
    return { field: 'count', trouble: 'Write how many, from 1 to 1,000.' };
  return {
    schedule: {
      unit: typed.unit,
      every,
      start: typed.start,
      ...(days.length > 0 ? { monthDays: days } : {}),
      ...(typed.unit === 'week' && typed.weekdays.length > 0 ? { weekdays: typed.weekdays } : {}),
      ends: ends === 'never' ? 'never' : ends === 'on' ? { on: typed.endsOn as CalendarDate } : { after },
      shift: typed.shift,
    },
  };
}

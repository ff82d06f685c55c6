import { isWeekend, USUAL_WEEKEND } from '../dates/banking-days';
import { type CalendarDate, dateOfDayNumber, dayNumber, dayNumberOf, daysInMonth } from '../dates/calendar-date';
import { RuleError } from '../rule-error';

/** A rule for dates (`calculation.md` 8; the vocabulary is RFC 5545's). Weekdays: Monday 1 to Sunday 7. */
export type Schedule = {
  readonly unit: 'day' | 'week' | 'month' | 'year';
  readonly every: number;
  readonly start: CalendarDate;
  readonly monthDays?: readonly (number | 'last')[];
  readonly weekdays?: readonly number[];
  readonly ends: 'never' | { readonly on: CalendarDate } | { readonly after: number };
  readonly shift?: 'none' | 'next' | 'previous' | 'skip';
  readonly weekend?: readonly number[];
};

export type ScheduleContext = {
  readonly holidays?: readonly CalendarDate[];
  /** Both ends included. */
  readonly pauses?: readonly { readonly from: CalendarDate; readonly to: CalendarDate }[];
};

/** A date by the rule, and the day on which it is charged after shifting. */
export type ScheduledDate = { readonly nominal: CalendarDate; readonly charged: CalendarDate };

const LAST_DAY = dayNumberOf(9999, 12, 31);
const bad = (words: string): RuleError => new RuleError('bad_schedule', `schedule.${words}`);
const isDay = (day: unknown, most: number): boolean => Number.isInteger(day) && Number(day) >= 1 && Number(day) <= most;

function check({ unit, every, monthDays, weekdays, ends, shift = 'none', weekend }: Schedule): void {
  if (!['day', 'week', 'month', 'year'].includes(unit)) throw bad('unit: day, week, month or year');
  if (!Number.isInteger(every) || every < 1) throw bad('every: a whole number from 1 on');
  if (!['none', 'next', 'previous', 'skip'].includes(shift)) throw bad('shift: none, next, previous or skip');
  if (
    monthDays !== undefined &&
    (!Array.isArray(monthDays) ||
      unit !== 'month' ||
      monthDays.length === 0 ||
      !monthDays.every((day) => day === 'last' || isDay(day, 31)))
  ) {
    throw bad('monthDays: days 1 to 31 or last, with unit month');
  }
  if (
    weekdays !== undefined &&
    (!Array.isArray(weekdays) || unit !== 'week' || weekdays.length === 0 || !weekdays.every((day) => isDay(day, 7)))
  ) {
    throw bad('weekdays: days 1 to 7, with unit week');
  }
  if (weekend !== undefined && !isWeekend(weekend)) throw bad('weekend: weekdays 1 to 7, never all seven');
  if (typeof ends === 'object' && 'after' in ends && (!Number.isInteger(ends.after) || ends.after < 1)) {
    throw bad('ends.after: a whole number from 1 on');
  }
}

/** Day numbers by the rule alone, ascending, always counted from the start and never from the date before: no drift. */
function* nominalDays({ unit, every, start, monthDays, weekdays }: Schedule): Generator<number> {
  const first = dayNumber(start);
  if (unit === 'day' || (unit === 'week' && !weekdays)) {
    const step = every * (unit === 'week' ? 7 : 1);
    for (let day = first; day <= LAST_DAY; day += step) yield day;
    return;
  }
  if (unit === 'week') {
    const days = [...new Set(weekdays)].sort((a, b) => a - b);
    for (let monday = first - (first % 7); monday <= LAST_DAY; monday += every * 7) {
      for (const day of days) if (monday + day - 1 >= first && monday + day - 1 <= LAST_DAY) yield monday + day - 1;
    }
    return;
  }
  const step = every * (unit === 'year' ? 12 : 1);
  const [year, month, startDay] = start.split('-').map(Number) as [number, number, number];
  for (let index = year * 12 + month - 1; index < 10_000 * 12; index += step) {
    const [y, m] = [Math.floor(index / 12), (index % 12) + 1];
    const length = daysInMonth(y, m);
    const wanted = (monthDays ?? [startDay]).map((day) => (day === 'last' ? length : Math.min(day, length)));
    for (const day of [...new Set(wanted)].sort((a, b) => a - b)) {
      const nominal = dayNumberOf(y, m, day);
      if (nominal >= first) yield nominal;
    }
  }
}

/** The day of charge, or null where the date is dropped. */
function shifted(nominal: number, shift: Schedule['shift'], isOff: (day: number) => boolean): number | null {
  if (!shift || shift === 'none' || !isOff(nominal)) return nominal;
  if (shift === 'skip') return null;
  let day = nominal;
  while (isOff(day)) day += shift === 'next' ? 1 : -1;
  return day <= LAST_DAY ? day : null;
}

/** All dates of a schedule, one after the other. @throws RuleError `bad_schedule` */
export function* scheduledDates(
  schedule: Schedule,
  { holidays = [], pauses = [] }: ScheduleContext = {},
): Generator<ScheduledDate> {
  check(schedule);
  const { ends, shift, weekend = USUAL_WEEKEND } = schedule;
  const off = new Set(weekend);
  const closed = new Set(holidays.map(dayNumber));
  const isOff = (day: number): boolean => off.has((day % 7) + 1) || closed.has(day);
  const breaks = pauses.map(({ from, to }) => [dayNumber(from), dayNumber(to)] as const);
  const last = typeof ends === 'object' && 'on' in ends ? dayNumber(ends.on) : LAST_DAY;
  const most = typeof ends === 'object' && 'after' in ends ? ends.after : Number.POSITIVE_INFINITY;
  let count = 0;
  for (const nominal of nominalDays(schedule)) {
    if (nominal > last || count >= most) return;
    if (breaks.some(([from, to]) => nominal >= from && nominal <= to)) continue;
    const charged = shifted(nominal, shift, isOff);
    if (charged === null) continue;
    count += 1;
    yield { nominal: dateOfDayNumber(nominal), charged: dateOfDayNumber(charged) };
  }
}

/** The first `limit` dates, and whether the schedule goes on after them. */
export function firstDates(
  schedule: Schedule,
  context: ScheduleContext,
  limit: number,
): { dates: ScheduledDate[]; more: boolean } {
  const dates: ScheduledDate[] = [];
  for (const date of scheduledDates(schedule, context)) {
    if (dates.length === limit) return { dates, more: true };
    dates.push(date);
  }
  return { dates, more: false };
}

/**
 * The same rhythm begun anew: its first date is the first on or after `from` that the old one has too. A month too short for the
 * start's day is passed over, so that a 31st stays one.
 *
 * @throws RuleError `bad_schedule`
 */
export function begunAnew(schedule: Schedule, from: CalendarDate): Schedule {
  const listed = (schedule.monthDays?.length ?? 0) + (schedule.weekdays?.length ?? 0) > 0;
  for (const { nominal } of scheduledDates({ ...schedule, ends: 'never', shift: 'none' })) {
    const clamped = schedule.unit === 'month' && !listed && nominal.slice(8) !== schedule.start.slice(8);
    if (nominal < from || clamped) continue;
    return { ...schedule, start: nominal };
  }
  return schedule;
}

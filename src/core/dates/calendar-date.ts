import { RuleError } from '../rule-error';

/** A civil day `YYYY-MM-DD`; sorts with `<` and is SQL's `date` unchanged. */
export type CalendarDate = string & { readonly brand: 'CalendarDate' };

const SHAPE = /^(\d{4})-(\d{2})-(\d{2})$/;
const DAYS_BEFORE_MONTH = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334];

const isLeap = (year: number): boolean => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;

/** Days in a month; `month` from 1. */
export const daysInMonth = (year: number, month: number): number =>
  month === 2 ? (isLeap(year) ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31;

/** Whether the text is a day that exists: 31 February is not. */
export function isCalendarDate(text: string): text is CalendarDate {
  const match = SHAPE.exec(text);
  if (!match) return false;
  const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
  return year >= 1 && month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(year, month);
}

/** @throws RuleError `bad_date` */
export function calendarDate(text: string): CalendarDate {
  if (!isCalendarDate(text)) throw new RuleError('bad_date', `${text} is not a day of the calendar (YYYY-MM-DD)`);
  return text;
}

/** Days from 1 January of year 1 (a Monday) to a day, proleptic Gregorian; `month` from 1. */
export function dayNumberOf(year: number, month: number, day: number): number {
  const y = year - 1;
  const leapDay = month > 2 && isLeap(year) ? 1 : 0;
  const days = y * 365 + Math.floor(y / 4) - Math.floor(y / 100) + Math.floor(y / 400);
  return days + (DAYS_BEFORE_MONTH[month - 1] ?? 0) + leapDay + day - 1;
}

/** The same for a date. */
export const dayNumber = (date: CalendarDate): number =>
  dayNumberOf(Number(date.slice(0, 4)), Number(date.slice(5, 7)), Number(date.slice(8, 10)));

/** The day with this number; the inverse of `dayNumber`. @throws RuleError `bad_date` beyond 9999-12-31 */
export function dateOfDayNumber(count: number): CalendarDate {
  // A first guess by the mean year is off by at most one.
  let year = Math.floor(count / 365.2425) + 1;
  const firstOf = (y: number) => dayNumberOf(y, 1, 1);
  if (firstOf(year) > count) year -= 1;
  if (firstOf(year + 1) <= count) year += 1;
  if (year < 1 || year > 9999) throw new RuleError('bad_date', 'No date lies beyond 9999-12-31');
  let rest = count - firstOf(year);
  let month = 1;
  while (rest >= daysInMonth(year, month)) {
    rest -= daysInMonth(year, month);
    month += 1;
  }
  return `${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(rest + 1).padStart(2, '0')}` as CalendarDate;
}

/** `days` may be negative. */
export const addDays = (date: CalendarDate, days: number): CalendarDate => dateOfDayNumber(dayNumber(date) + days);

/** How many days `to` lies after `from`; negative where it lies before. */
export const daysBetween = (from: CalendarDate, to: CalendarDate): number => dayNumber(to) - dayNumber(from);

/** ISO weekday: Monday 1 to Sunday 7. */
export const weekday = (date: CalendarDate): number => (dayNumber(date) % 7) + 1;

/** The last day of a date's month. */
export function monthEnd(date: CalendarDate): CalendarDate {
  const [year = 0, month = 0] = date.split('-').map(Number);
  return dateOfDayNumber(dayNumberOf(year, month, daysInMonth(year, month)));
}

/** The earlier of two days. */
export const earlierDay = (a: CalendarDate, b: CalendarDate): CalendarDate => (b < a ? b : a);

/** The later of two days. */
export const laterDay = (a: CalendarDate, b: CalendarDate): CalendarDate => (b > a ? b : a);

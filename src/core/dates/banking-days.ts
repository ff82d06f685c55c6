import { RuleError } from '../rule-error';
import { addDays, type CalendarDate, weekday } from './calendar-date';

/** Weekdays (ISO, Monday 1) and days on which banks do not work. */
export type DaysOff = { readonly weekend?: readonly number[]; readonly holidays?: readonly CalendarDate[] };

/** Saturday and Sunday, where nothing else is said. */
export const USUAL_WEEKEND: readonly number[] = [6, 7];

/** Whether a value is a list of weekdays 1 to 7, and not all seven. */
export const isWeekend = (weekend: unknown): weekend is readonly number[] =>
  Array.isArray(weekend) &&
  weekend.every((day) => Number.isInteger(day) && Number(day) >= 1 && Number(day) <= 7) &&
  new Set(weekend).size < 7;

/** The days on which a bank works. */
export type BankingDays = {
  readonly is: (day: CalendarDate) => boolean;
  /** The day itself where it is one, else the next. @throws RuleError `bad_date` beyond 9999-12-31 */
  readonly from: (day: CalendarDate) => CalendarDate;
  /** The n-th banking day after a day; for 0 the day itself, whatever it is. */
  readonly after: (day: CalendarDate, count: number) => CalendarDate;
};

/** @throws RuleError `bad_schedule` */
export function bankingDays({ weekend = USUAL_WEEKEND, holidays = [] }: DaysOff): BankingDays {
  if (!isWeekend(weekend)) throw new RuleError('bad_schedule', 'weekend: weekdays 1 to 7, never all seven');
  const off = new Set(weekend);
  const free = new Set<string>(holidays);
  const is = (day: CalendarDate) => !off.has(weekday(day)) && !free.has(day);
  const from = (day: CalendarDate): CalendarDate => {
    let at = day;
    while (!is(at)) at = addDays(at, 1);
    return at;
  };
  const after = (day: CalendarDate, count: number): CalendarDate => {
    let at = day;
    for (let left = count; left > 0; left -= 1) at = from(addDays(at, 1));
    return at;
  };
  return { is, from, after };
}

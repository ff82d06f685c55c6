import { isCalendarDate } from './calendar-date';

/** Years that anything of a business lies in; further away, dates could not be reckoned with any more. */
const YEARS = /^(19|20|21)\d\d-/;

/** Whether a text is a day of the calendar (YYYY-MM-DD) from 1900 to 2199. */
export const isUsualDay = (value: unknown): boolean =>
  typeof value === 'string' && YEARS.test(value) && isCalendarDate(value);

const INSTANT = /^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2}(\.\d{1,6})?)?(Z|[+-]\d{2}:\d{2})?)?$/;

/** Whether a text is such a day, or an instant of one, as ISO 8601 writes them in full: what only looks like one ends in the database. */
export const isUsualMoment = (value: unknown): boolean =>
  typeof value === 'string' &&
  INSTANT.test(value) &&
  isUsualDay(value.slice(0, 10)) &&
  !Number.isNaN(Date.parse(value));

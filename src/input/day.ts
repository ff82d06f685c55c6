import { registerDecorator } from 'class-validator';
import { isCalendarDate } from '@/core/dates/calendar-date';

/** Years that anything of a business lies in; further away, dates could not be reckoned with any more. */
const YEARS = /^(19|20|21)\d\d-/;

/** Whether a text is a day of the calendar (YYYY-MM-DD) from 1900 to 2199. */
export const isUsualDay = (value: unknown): boolean =>
  typeof value === 'string' && YEARS.test(value) && isCalendarDate(value);

const INSTANT = /^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2}(\.\d{1,6})?)?(Z|[+-]\d{2}:\d{2})?)?$/;

const rule =
  (name: string, validate: (value: unknown) => boolean, words: string) => (target: object, propertyName: string) =>
    registerDecorator({
      name,
      target: target.constructor,
      propertyName,
      validator: { validate, defaultMessage: () => words },
    });

/** A day of the calendar. @param words what to say otherwise */
export const Day = (words = 'Choose a day of the calendar.') => rule('day', isUsualDay, words);

/** A day of the calendar, or nothing. */
export const DayOrNone = (words = 'Choose a day of the calendar.') =>
  rule('dayOrNone', (value) => value === '' || isUsualDay(value), words);

/** An instant or a day, as ISO 8601 writes them in full. */
export const Moment = () =>
  rule(
    'moment',
    (value) =>
      typeof value === 'string' &&
      INSTANT.test(value) &&
      isUsualDay(value.slice(0, 10)) &&
      !Number.isNaN(Date.parse(value)),
    'Choose a day and a time.',
  );

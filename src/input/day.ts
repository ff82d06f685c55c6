import { registerDecorator } from 'class-validator';
import { isUsualDay, isUsualMoment } from '@/core/dates/usual';

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
export const Moment = () => rule('moment', isUsualMoment, 'Choose a day and a time.');

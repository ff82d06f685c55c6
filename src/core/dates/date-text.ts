import { dayWay, languageOf } from '../writing/writing';
import { type CalendarDate, daysBetween } from './calendar-date';

const cache = new Map<string, Intl.DateTimeFormat>();

function format(locale: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${locale} ${JSON.stringify(options)}`;
  const known = cache.get(key);
  if (known) return known;
  const made = new Intl.DateTimeFormat(locale, options);
  cache.set(key, made);
  return made;
}

// A civil day has no zone: it is written at UTC noon, so that no offset can move it.
const noon = (date: CalendarDate): Date => new Date(`${date}T12:00:00Z`);

/** `28 Nov`, `28 Nov 2025`, `Fri 28 Nov`: short, day first, as lists have it; month first, or as ISO 8601 has it, for who writes so. */
export function shortDate(
  date: CalendarDate,
  locale: string,
  with_: { weekday?: boolean; year?: boolean } = {},
): string {
  const parts = format(locale, {
    timeZone: 'UTC',
    day: 'numeric',
    month: 'short',
    ...(with_.weekday ? { weekday: 'short' } : {}),
    ...(with_.year ? { year: 'numeric' } : {}),
  }).formatToParts(noon(date));
  const value = (type: string) => parts.find((part) => part.type === type)?.value;
  const written = (...pieces: (string | undefined)[]) => pieces.filter(Boolean).join(' ');
  switch (dayWay(locale)) {
    case 'iso':
      return written(value('weekday'), with_.year ? date : date.slice(5));
    case 'mdy': {
      const day = written(value('weekday'), value('month'), value('day'));
      return with_.year ? `${day}, ${value('year')}` : day;
    }
    default:
      return written(value('weekday'), value('day'), value('month'), value('year'));
  }
}

/** `13 November 2025` in the reader's language, and in their order where they have one. */
export function longDate(date: CalendarDate, locale: string): string {
  const way = dayWay(locale);
  if (way === 'iso') return date;
  const language = languageOf(locale);
  // Only English is written in both orders.
  const ordered = way && language.startsWith('en') ? (way === 'mdy' ? 'en-US' : 'en-GB') : language;
  return format(ordered, { timeZone: 'UTC', dateStyle: 'long' }).format(noon(date));
}

/** `Thursday, 13 November`, for a heading. */
export function dayHeading(date: CalendarDate, locale: string): string {
  const parts = format(locale, { timeZone: 'UTC', weekday: 'long', day: 'numeric', month: 'long' }).formatToParts(
    noon(date),
  );
  const value = (type: string) => parts.find((part) => part.type === type)?.value;
  const way = dayWay(locale);
  if (way === 'iso') return `${value('weekday')}, ${date}`;
  const day = way === 'mdy' ? [value('month'), value('day')] : [value('day'), value('month')];
  return `${value('weekday')}, ${day.join(' ')}`;
}

/** `Monday` for 1, to `Sunday` for 7 (ISO). */
export const weekdayName = (weekday: number, locale: string): string =>
  // The first of January 2024 was a Monday.
  format(locale, { timeZone: 'UTC', weekday: 'long' }).format(new Date(Date.UTC(2024, 0, weekday)));

/** `09:41` in the zone. */
export const clockTime = (instant: Date, zone: string): string =>
  format('en-GB', { timeZone: zone, hour: '2-digit', minute: '2-digit' }).format(instant);

/** `today`, `tomorrow`, `in 15 days`, `yesterday`, `9 days ago`, against today. */
export function fromToday(date: CalendarDate, today: CalendarDate): string {
  const days = daysBetween(today, date);
  if (days === 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days === -1) return 'yesterday';
  return days > 0 ? `in ${days} days` : `${-days} days ago`;
}

/** `2027-03` as a month and year. */
export const monthText = (month: string, locale: string): string =>
  new Intl.DateTimeFormat(locale, { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
    new Date(`${month}-01T00:00:00Z`),
  );

import ICAL from 'ical.js';
import type { CalendarDate } from '@/core/dates/calendar-date';

/** One day of a calendar that goes out. */
export type CalendarDay = {
  readonly id: string;
  readonly on: CalendarDate;
  readonly words: string;
  readonly more: string;
};

/** Days as an iCalendar file (RFC 5545): one all-day event each, under an id that stays. @param now when it is made, for DTSTAMP */
export function chargesCalendar(name: string, days: readonly CalendarDay[], now: Date): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Dahlia//Charges//EN');
  calendar.updatePropertyWithValue('name', name);
  for (const { id, on, words, more } of days) {
    const event = new ICAL.Component('vevent');
    event.updatePropertyWithValue('uid', `${id}@dahlia`);
    event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(now, true));
    event.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(on));
    event.updatePropertyWithValue('summary', words);
    event.updatePropertyWithValue('description', more);
    calendar.addSubcomponent(event);
  }
  return `${calendar.toString()}\r\n`;
}

const MOST_DAYS = 1000;

/**
 * The days off in an iCalendar file, with their names; an event of several days gives each of them. Repeated ones are read
 * for the years from `from` to `until`.
 *
 * @returns null for what is no iCalendar file
 */
export function holidaysOf(
  text: string,
  from: CalendarDate,
  until: CalendarDate,
): { on: CalendarDate; name: string }[] | null {
  let events: ICAL.Component[];
  try {
    events = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent');
  } catch {
    return null;
  }
  const days = new Map<string, string>();
  const note = (start: ICAL.Time, length: number, name: string) => {
    for (let at = 0; at < Math.max(1, length) && days.size < MOST_DAYS; at++) {
      const day = start.clone();
      day.addDuration(ICAL.Duration.fromSeconds(at * 86_400));
      const on = day.toString().slice(0, 10);
      if (on >= from && on <= until) days.set(on, name);
    }
  };
  for (const component of events) {
    const event = new ICAL.Event(component);
    if (!event.startDate) continue;
    const name = String(event.summary ?? '').slice(0, 120);
    const length = event.endDate ? Math.round(event.duration.toSeconds() / 86_400) : 1;
    if (!event.isRecurring()) {
      note(event.startDate, length, name);
      continue;
    }
    const dates = event.iterator();
    for (let next = dates.next(), seen = 0; next && seen < 400; next = dates.next(), seen++) {
      if (next.toString().slice(0, 10) > until) break;
      note(next, length, name);
    }
  }
  return [...days].sort(([a], [b]) => (a < b ? -1 : 1)).map(([on, name]) => ({ on: on as CalendarDate, name }));
}

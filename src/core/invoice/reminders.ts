import { addDays, type CalendarDate } from '../dates/calendar-date';

/** A reminder's day, and how far it is from the due date. */
export type ReminderDay = { readonly offset: number; readonly on: CalendarDate };

export const MOST_REMINDERS = 12;

/**
 * On which days reminders go out, earliest first; a day twice counts once, and days up to the day of sending are left out.
 *
 * @param offsets days from the due date, negative before it
 */
export const reminderDays = (offsets: readonly number[], dueOn: CalendarDate, sentOn: CalendarDate): ReminderDay[] =>
  [...new Set(offsets)]
    .sort((a, b) => a - b)
    .map((offset) => ({ offset, on: addDays(dueOn, offset) }))
    .filter(({ on }) => on > sentOn);

/** `3 days before it is due`, `on the due date`, `10 days after`. */
export function reminderWords(offset: number): string {
  if (offset === 0) return 'on the due date';
  const days = Math.abs(offset) === 1 ? '1 day' : `${Math.abs(offset)} days`;
  return offset < 0 ? `${days} before` : `${days} after`;
}

/** Reminders of one customer that go to one address under one name, together; the first of each by its due date. */
export function remindedTogether<
  One extends {
    readonly customerId: string;
    readonly address: string;
    /** The name under which it was asked. */
    readonly sender: string;
    readonly dueOn: CalendarDate;
  },
>(reminders: readonly One[]): One[][] {
  const groups = new Map<string, One[]>();
  for (const one of reminders) {
    const key = JSON.stringify([one.customerId, one.address.toLowerCase(), one.sender]);
    groups.set(key, [...(groups.get(key) ?? []), one]);
  }
  return [...groups.values()].map((group) =>
    group.sort((a, b) => (a.dueOn < b.dueOn ? -1 : a.dueOn > b.dueOn ? 1 : 0)),
  );
}

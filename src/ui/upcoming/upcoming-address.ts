import type { CalendarDate } from '@/core/dates/calendar-date';

export type UpcomingAsked = {
  readonly words: string;
  readonly state: string;
  readonly from: string;
  readonly to: string;
  readonly notCarried: boolean;
  readonly as: 'list' | 'calendar';
};

/** The address under which what is asked is shown; what is usual is left out. @param month `YYYY-MM` */
export function upcomingAddress(asked: UpcomingAsked, month: string, today: CalendarDate): string {
  const query = new URLSearchParams();
  if (asked.words.trim()) query.set('words', asked.words.trim());
  if (asked.state) query.set('state', asked.state);
  if (asked.from && asked.from !== today) query.set('from', asked.from);
  if (asked.to) query.set('to', asked.to);
  if (asked.notCarried) query.set('notCarried', 'yes');
  if (asked.as === 'calendar') query.set('as', 'calendar');
  if (month !== today.slice(0, 7)) query.set('month', month);
  return `/money/upcoming?${query.toString()}`;
}

/** What is asked as a query, whole: for the file and for the next page. */
export const upcomingQuery = ({ words, state, from, to, notCarried }: UpcomingAsked): URLSearchParams =>
  new URLSearchParams(
    Object.entries({ words: words.trim(), state, from, to, notCarried: notCarried ? 'yes' : '' }).filter(
      ([, value]) => value,
    ),
  );

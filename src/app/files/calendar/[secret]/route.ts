import { Nothing, open, textAnswer } from '@/app/answer';
import { calendarFeed } from '@/flows/plan/calendar-feed';

/** The business's private calendar: whoever has the address reads it, without signing in, as calendar programs do. */
export const GET = open(Nothing, async ({ params }) =>
  textAnswer('charges.ics', 'text/calendar', await calendarFeed(params.secret ?? '')),
);

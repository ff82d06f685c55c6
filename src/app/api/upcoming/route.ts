import { desk } from '@/app/answer';
import { jsonUpcoming, upcomingWords } from '@/app/json-upcoming';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { upcomingCharges } from '@/flows/plan/upcoming';
import { UpcomingInput } from '@/input/plan-input';

export const GET = desk(UpcomingInput, async (actor, { input }) => {
  const after = input.key && input.id ? { on: input.key as CalendarDate, id: input.id } : null;
  const page = await upcomingCharges(actor, upcomingWords(input), after);
  return { rows: page.rows.map(jsonUpcoming), next: page.next };
});

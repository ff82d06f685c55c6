import { desk, Nothing } from '@/app/answer';
import { readHolidays } from '@/flows/plan/charging-policy';

/** The body is the iCalendar file itself. */
export const POST = desk(Nothing, async (actor, { file }) => readHolidays(actor, (await file()).toString('utf8')), {
  from: 'address',
});

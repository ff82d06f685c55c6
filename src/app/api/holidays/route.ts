import { desk, Nothing } from '@/app/answer';
import { Refusal } from '@/flows/door/refusal';
import { readHolidays } from '@/flows/plan/charging-policy';

const MOST_BYTES = 1_000_000;

/** The body is the iCalendar file itself. */
export const POST = desk(
  Nothing,
  async (actor, { request }) => {
    if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES) throw new Refusal('file-too-large');
    return readHolidays(actor, await request.text());
  },
  'address',
);

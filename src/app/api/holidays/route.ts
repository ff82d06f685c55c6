import { desk, Nothing } from '@/app/answer';
import { readHolidays } from '@/flows/plans/charging-policy';
import { Refusal } from '@/flows/refusal';

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

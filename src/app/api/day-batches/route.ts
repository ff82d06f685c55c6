import { jsonBatch } from '@/app/(desk)/money/batches/json-batch';
import { desk } from '@/app/answer';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { batchList } from '@/flows/day/day-batches';
import { BatchPageInput } from '@/input/batch-input';

export const GET = desk(BatchPageInput, async (actor, { input }) => {
  const page = await batchList(actor, isCalendarDate(input.key) ? input.key : null);
  return {
    rows: page.rows.map((row) => jsonBatch(row, page.business, page.today)),
    next: page.next && { key: page.next, id: page.next },
  };
});

import { desk, Nothing, textAnswer } from '@/app/answer';
import { batchCsv } from '@/flows/day/day-batches';

export const GET = desk(Nothing, async (actor, { params }) =>
  textAnswer(`batch-${params.day}.csv`, 'text/csv', await batchCsv(actor, params.day ?? '')),
);

import { desk } from '@/app/answer';
import { settleDifferences } from '@/flows/day/day-batches';
import { SettleBatchInput } from '@/input/batch-input';

export const POST = desk(SettleBatchInput, (actor, { params, input }) =>
  settleDifferences(actor, params.day ?? '', input.words),
);

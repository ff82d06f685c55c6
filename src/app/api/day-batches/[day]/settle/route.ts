import { desk } from '@/app/answer';
import { SettleBatchInput } from '@/app/input/batch-input';
import { settleDifferences } from '@/flows/day/day-batches';

export const POST = desk(SettleBatchInput, (actor, { params, input }) =>
  settleDifferences(actor, params.day ?? '', input.words),
);

import { desk } from '@/app/answer';
import { BatchInput } from '@/app/input/repeat-input';
import { checkBatch } from '@/flows/batch';

export const POST = desk(BatchInput, async (actor, { input }) => ({
  id: await checkBatch(actor, input.invoiceId, input.name, input, input.how),
}));

import { desk } from '@/app/answer';
import { checkBulk } from '@/flows/invoice/bulk-invoices';
import { BatchInput } from '@/input/recurring-input';

export const POST = desk(BatchInput, async (actor, { input }) => ({
  id: await checkBulk(actor, input.invoiceId, input.name, input, input.how, input.withFiles),
}));

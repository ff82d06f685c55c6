import { desk } from '@/app/answer';
import { BatchInput } from '@/app/input/recurring-input';
import { checkBulk } from '@/flows/invoice/bulk-invoices';

export const POST = desk(BatchInput, async (actor, { input }) => ({
  id: await checkBulk(actor, input.invoiceId, input.name, input, input.how),
}));

import { desk } from '@/app/answer';
import { startRecurring } from '@/flows/invoice/recurring';
import { NewRecurringInput } from '@/input/recurring-input';

export const POST = desk(NewRecurringInput, async (actor, { input: { invoiceId, withFiles, ...plan } }) => ({
  id: await startRecurring(actor, invoiceId, plan, withFiles),
}));

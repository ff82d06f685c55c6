import { desk } from '@/app/answer';
import { NewRecurringInput } from '@/app/input/recurring-input';
import { startRecurring } from '@/flows/invoice/recurring';

export const POST = desk(NewRecurringInput, async (actor, { input: { invoiceId, ...plan } }) => ({
  id: await startRecurring(actor, invoiceId, plan),
}));

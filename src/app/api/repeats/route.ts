import { desk } from '@/app/answer';
import { NewRepeatInput } from '@/app/input/repeat-input';
import { startRepeat } from '@/flows/repeats';

export const POST = desk(NewRepeatInput, async (actor, { input: { invoiceId, ...plan } }) => ({
  id: await startRepeat(actor, invoiceId, plan),
}));

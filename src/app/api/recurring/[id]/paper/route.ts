import { desk } from '@/app/answer';
import { repaperRecurring } from '@/flows/invoice/recurring';
import { RepaperInput } from '@/input/recurring-input';

export const PUT = desk(RepaperInput, (actor, { input, params }) =>
  repaperRecurring(actor, params.id ?? '', input.invoiceId),
);

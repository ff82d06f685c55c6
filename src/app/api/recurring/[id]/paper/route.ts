import { desk } from '@/app/answer';
import { RepaperInput } from '@/app/input/recurring-input';
import { repaperRecurring } from '@/flows/invoice/recurring';

export const PUT = desk(RepaperInput, (actor, { input, params }) =>
  repaperRecurring(actor, params.id ?? '', input.invoiceId),
);

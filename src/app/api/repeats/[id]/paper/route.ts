import { desk } from '@/app/answer';
import { RepaperInput } from '@/app/input/repeat-input';
import { repaperRepeat } from '@/flows/repeats';

export const PUT = desk(RepaperInput, (actor, { input, params }) =>
  repaperRepeat(actor, params.id ?? '', input.invoiceId),
);

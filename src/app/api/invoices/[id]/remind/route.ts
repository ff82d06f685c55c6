import { desk } from '@/app/answer';
import { SendAgainInput } from '@/app/input/paper-input';
import { remindNow } from '@/flows/invoice/remind';

export const POST = desk(SendAgainInput, (actor, { input, params }) =>
  remindNow(actor, params.id ?? '', input.requestKey, input.how),
);

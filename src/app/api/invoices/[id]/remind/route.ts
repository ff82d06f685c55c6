import { desk } from '@/app/answer';
import { remindNow } from '@/flows/invoice/remind';
import { SendAgainInput } from '@/input/paper-input';

export const POST = desk(SendAgainInput, (actor, { input, params }) =>
  remindNow(actor, params.id ?? '', input.requestKey, input.how),
);

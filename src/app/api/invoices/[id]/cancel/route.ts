import { desk } from '@/app/answer';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';
import { CancelInput } from '@/input/follow-input';

export const POST = desk(CancelInput, (actor, { input, params }) =>
  cancelInvoice(actor, params.id ?? '', input.reason, input.tell),
);

import { desk } from '@/app/answer';
import { CancelInput } from '@/app/input/follow-input';
import { cancelInvoice } from '@/flows/invoice/cancel-invoice';

export const POST = desk(CancelInput, (actor, { input, params }) =>
  cancelInvoice(actor, params.id ?? '', input.reason, input.tell),
);

import { desk } from '@/app/answer';
import { sendInvoiceAgain } from '@/flows/invoice/send-invoice';
import { SendAgainInput } from '@/input/paper-input';

export const POST = desk(SendAgainInput, (actor, { input, params }) =>
  sendInvoiceAgain(actor, params.id ?? '', input.requestKey, input.how),
);

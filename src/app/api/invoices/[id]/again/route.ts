import { desk } from '@/app/answer';
import { SendAgainInput } from '@/app/input/paper-input';
import { sendInvoiceAgain } from '@/flows/invoice/send-invoice';

export const POST = desk(SendAgainInput, (actor, { input, params }) =>
  sendInvoiceAgain(actor, params.id ?? '', input.requestKey, input.how),
);

import { desk } from '@/app/answer';
import { ReceiptAgainInput } from '@/app/input/offer-input';
import { sendReceiptAgain } from '@/flows/checkout/send-receipt';

export const POST = desk(ReceiptAgainInput, (actor, { input, params }) =>
  sendReceiptAgain(actor, params.id ?? '', input),
);

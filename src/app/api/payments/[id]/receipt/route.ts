import { desk } from '@/app/answer';
import { sendReceiptAgain } from '@/flows/payment/send-receipt';
import { ReceiptAgainInput } from '@/input/offer-input';

export const POST = desk(ReceiptAgainInput, (actor, { input, params }) =>
  sendReceiptAgain(actor, params.id ?? '', input),
);

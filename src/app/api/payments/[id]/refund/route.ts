import { desk } from '@/app/answer';
import { RefundInput } from '@/app/input/offer-input';
import { refundPayment } from '@/flows/payment/refund-payment';

export const POST = desk(RefundInput, (actor, { input, params }) =>
  refundPayment(actor, params.id ?? '', { ...input, amountMinor: BigInt(input.amountMinor) }),
);

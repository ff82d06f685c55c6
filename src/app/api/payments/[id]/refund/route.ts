import { desk } from '@/app/answer';
import { refundPayment } from '@/flows/payment/refund-payment';
import { RefundInput } from '@/input/offer-input';

export const POST = desk(RefundInput, (actor, { input, params }) =>
  refundPayment(actor, params.id ?? '', { ...input, amountMinor: BigInt(input.amountMinor) }),
);

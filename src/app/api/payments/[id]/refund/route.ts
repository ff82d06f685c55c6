import { desk } from '@/app/answer';
import { refundPayment } from '@/flows/payment/refund-payment';
import { RefundInput, wishOf } from '@/input/refund-input';

export const POST = desk(RefundInput, (actor, { input, params }) =>
  refundPayment(actor, params.id ?? '', { ...input, wish: wishOf(input.wish) }),
);

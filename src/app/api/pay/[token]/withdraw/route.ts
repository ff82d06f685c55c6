import { open } from '@/app/answer';
import { withdrawAttempt } from '@/flows/payment/settle-payment';
import { WithdrawInput } from '@/input/pay-input';

export const POST = open(WithdrawInput, ({ input, params }) =>
  withdrawAttempt(params.token ?? '', input.attempt ?? null),
);

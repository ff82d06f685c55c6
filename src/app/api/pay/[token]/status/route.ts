import { open } from '@/app/answer';
import { AttemptInput } from '@/app/input/pay-input';
import { paymentStatus } from '@/flows/payment/settle-payment';

export const GET = open(AttemptInput, ({ input, params }) => paymentStatus(params.token ?? '', input.attempt));

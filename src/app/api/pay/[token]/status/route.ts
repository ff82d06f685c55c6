import { open } from '@/app/answer';
import { paymentStatus } from '@/flows/payment/settle-payment';
import { AttemptInput } from '@/input/pay-input';

export const GET = open(AttemptInput, ({ input, params }) => paymentStatus(params.token ?? '', input.attempt));

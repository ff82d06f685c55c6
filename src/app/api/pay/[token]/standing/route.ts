import { open } from '@/app/answer';
import { AttemptInput } from '@/app/input/pay-input';
import { paymentStanding } from '@/flows/settle-payment';

export const GET = open(AttemptInput, ({ input, params }) => paymentStanding(params.token ?? '', input.attempt));

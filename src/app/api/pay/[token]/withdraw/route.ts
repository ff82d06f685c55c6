import { Nothing, open } from '@/app/answer';
import { withdrawAttempt } from '@/flows/payment/settle-payment';

export const POST = open(Nothing, ({ params }) => withdrawAttempt(params.token ?? ''));

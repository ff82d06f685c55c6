import { desk } from '@/app/answer';
import { ReceivedInput } from '@/app/input/follow-input';
import { recordReceived } from '@/flows/payment/receive-payment';

export const POST = desk(ReceivedInput, (actor, { input, params }) =>
  recordReceived(actor, params.id ?? '', { ...input, amountMinor: BigInt(input.amountMinor) }),
);

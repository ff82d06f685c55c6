import { desk } from '@/app/answer';
import { recordReceived } from '@/flows/payment/receive-payment';
import { ReceivedInput } from '@/input/follow-input';

export const POST = desk(ReceivedInput, (actor, { input, params }) =>
  recordReceived(actor, params.id ?? '', {
    ...input,
    more: input.more ?? false,
    amountMinor: BigInt(input.amountMinor),
  }),
);

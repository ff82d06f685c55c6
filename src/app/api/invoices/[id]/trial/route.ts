import { desk } from '@/app/answer';
import { TrialInput } from '@/app/input/paper-input';
import { sendTrial } from '@/flows/invoice/send-invoice';

export const POST = desk(TrialInput, (actor, { input, params }) =>
  sendTrial(actor, params.id ?? '', input.requestKey, input.to),
);

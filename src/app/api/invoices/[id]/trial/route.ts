import { desk } from '@/app/answer';
import { sendTrial } from '@/flows/invoice/send-invoice';
import { TrialInput } from '@/input/paper-input';

export const POST = desk(TrialInput, (actor, { input, params }) =>
  sendTrial(actor, params.id ?? '', input.requestKey, input.to),
);

import { desk } from '@/app/answer';
import { sendInvoice } from '@/flows/invoice/send-invoice';
import { setSendingTime } from '@/flows/invoice/timed-sending';
import { SendInput } from '@/input/paper-input';

export const POST = desk(SendInput, async (actor, { input, params }) => {
  const id = params.id ?? '';
  if (input.on) return setSendingTime(actor, id, { revision: input.revision, how: input.how, on: input.on });
  return { number: await sendInvoice(actor, id, input.revision, input.how) };
});

import { desk } from '@/app/answer';
import { SendInput } from '@/app/input/paper-input';
import { planSending } from '@/flows/plan-sending';
import { sendInvoice } from '@/flows/send-invoice';

export const POST = desk(SendInput, async (actor, { input, params }) => {
  const id = params.id ?? '';
  if (input.on) return planSending(actor, id, input.revision, input.how, input.on);
  return { number: await sendInvoice(actor, id, input.revision, input.how) };
});

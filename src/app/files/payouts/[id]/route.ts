import { desk, fileAnswer, streamAnswer } from '@/app/answer';
import { payoutCsv, payoutStatement } from '@/flows/payout/payout-sheet';
import { PayoutFileInput } from '@/input/payout-input';

export const GET = desk(PayoutFileInput, async (actor, { params, input }) => {
  const id = params.id ?? '';
  if (input.form === 'pdf') return fileAnswer(await payoutStatement(actor, id));
  const { name, parts } = await payoutCsv(actor, id);
  return streamAnswer(name, 'text/csv', parts);
});

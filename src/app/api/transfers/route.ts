import { desk } from '@/app/answer';
import { makeTransferFile } from '@/flows/payment/transfer-file';
import { PressInput } from '@/input/follow-input';

export const POST = desk(PressInput, async (actor, { input }) => ({
  id: await makeTransferFile(actor, input.requestKey),
}));

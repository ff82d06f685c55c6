import { desk } from '@/app/answer';
import { takeSure } from '@/flows/bank/take-sure';
import { BankAccountInput } from '@/input/bank-input';

export const POST = desk(BankAccountInput, async (actor, { input }) => ({
  taken: await takeSure(actor, input.account, input.currency),
}));

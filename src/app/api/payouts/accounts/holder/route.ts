import { desk } from '@/app/answer';
import { accountHolder } from '@/flows/payout/accounts';
import { AccountNumberInput } from '@/input/payout-input';

export const GET = desk(AccountNumberInput, async (actor, { input }) => ({
  holder: await accountHolder(actor, input.number),
}));

import { open } from '@/app/answer';
import { confirmOwnAccount, giveOwnAccount } from '@/flows/payout/accounts';
import { PartnerPageInput } from '@/input/payout-input';

export const POST = open(PartnerPageInput, async ({ params, input }): Promise<null> => {
  const { number = '', currency = '', accountId = '', sums = [] } = input;
  const token = params.token ?? '';
  if (input.action === 'give') await giveOwnAccount(token, { currency, number });
  else await confirmOwnAccount(token, accountId, sums.map(BigInt));
  return null;
});

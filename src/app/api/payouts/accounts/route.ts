import { desk } from '@/app/answer';
import { giveAccount } from '@/flows/payout/accounts';
import { GiveAccountInput } from '@/input/payout-input';

export const POST = desk(GiveAccountInput, (actor, { input: { partnerId = null, currency, number } }) =>
  giveAccount(actor, { partnerId, currency, number }),
);

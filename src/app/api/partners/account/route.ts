import { desk } from '@/app/answer';
import { AccountInput } from '@/app/input/offer-records-input';
import { accountHolder } from '@/flows/records/partners';

export const GET = desk(
  AccountInput,
  async (actor, { input }) => ({ holder: await accountHolder(actor, input.number) }),
  'address',
);

import { desk } from '@/app/answer';
import { accountHolder } from '@/flows/records/partners';
import { AccountInput } from '@/input/offer-records-input';

export const GET = desk(
  AccountInput,
  async (actor, { input }) => ({ holder: await accountHolder(actor, input.number) }),
  { from: 'address' },
);

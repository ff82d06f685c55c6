import { desk } from '@/app/answer';
import { ChargesAgainInput } from '@/app/input/plan-input';
import { chargeManyAgain } from '@/flows/plan/change-charge';

export const POST = desk(ChargesAgainInput, async (actor, { input }) => ({
  charged: await chargeManyAgain(actor, input.ids),
}));

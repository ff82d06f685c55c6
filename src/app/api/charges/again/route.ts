import { desk } from '@/app/answer';
import { chargeManyAgain } from '@/flows/plan/change-charge';
import { ChargesAgainInput } from '@/input/plan-input';

export const POST = desk(ChargesAgainInput, async (actor, { input }) => ({
  charged: await chargeManyAgain(actor, input.ids),
}));

import { desk } from '@/app/answer';
import { ChargesAgainInput } from '@/app/input/plan-input';
import { carryOver } from '@/flows/plan/change-charge';

export const POST = desk(ChargesAgainInput, async (actor, { input }) => ({
  carried: await carryOver(actor, input.ids),
}));

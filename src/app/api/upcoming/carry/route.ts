import { desk } from '@/app/answer';
import { carryOver } from '@/flows/plan/change-charge';
import { ChargesAgainInput } from '@/input/plan-input';

export const POST = desk(ChargesAgainInput, async (actor, { input }) => ({
  carried: await carryOver(actor, input.ids),
}));

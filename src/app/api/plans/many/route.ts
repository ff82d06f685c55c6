import { desk } from '@/app/answer';
import { checkPlans, makePlans } from '@/flows/plan/many-plans';
import { ManyPlansInput } from '@/input/plan-input';

export const POST = desk(ManyPlansInput, (actor, { input }) =>
  input.key ? makePlans(actor, input.text, input.key) : checkPlans(actor, input.text),
);

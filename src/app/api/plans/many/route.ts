import { desk } from '@/app/answer';
import { ManyPlansInput } from '@/app/input/plan-input';
import { checkPlans, makePlans } from '@/flows/plan/many-plans';

export const POST = desk(ManyPlansInput, (actor, { input }) =>
  input.key ? makePlans(actor, input.text, input.key) : checkPlans(actor, input.text),
);

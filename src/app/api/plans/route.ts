import { desk } from '@/app/answer';
import { KeepPlanInput } from '@/app/input/plan-input';
import { planWords } from '@/app/whole-plan';
import { keepPlan } from '@/flows/plans/plans';

export const POST = desk(KeepPlanInput, (actor, { input }) => keepPlan(actor, null, planWords(input)));

import { desk } from '@/app/answer';
import { KeepPlanInput, PlanListInput } from '@/app/input/plan-input';
import { planWords } from '@/app/whole-plan';
import { wirePlan } from '@/app/wire-plan';
import { businessToday } from '@/flows/payment-list';
import { planList } from '@/flows/plans/plan-list';
import { keepPlan } from '@/flows/plans/plans';

export const GET = desk(PlanListInput, async (actor, { input }) => {
  const { business, today } = await businessToday(actor);
  const { rows } = await planList(actor, input.words ?? '', input.show ?? '');
  return rows.map((row) => wirePlan(row, business, today));
});

export const POST = desk(KeepPlanInput, (actor, { input }) => keepPlan(actor, null, planWords(input)));

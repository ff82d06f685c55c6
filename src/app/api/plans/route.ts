import { desk } from '@/app/answer';
import { planWords } from '@/app/complete-plan';
import { jsonPlan } from '@/app/json-plan';
import { businessToday } from '@/flows/payment/payment-list';
import { planList } from '@/flows/plan/plan-list';
import { keepPlan } from '@/flows/plan/plans';
import { KeepPlanInput, PlanListInput } from '@/input/plan-input';

export const GET = desk(PlanListInput, async (actor, { input }) => {
  const { business, today } = await businessToday(actor);
  const { rows } = await planList(actor, input.words ?? '', input.show ?? '');
  return rows.map((row) => jsonPlan(row, business, today));
});

export const POST = desk(KeepPlanInput, (actor, { input }) => keepPlan(actor, null, planWords(input)));

import { desk, Nothing } from '@/app/answer';
import { planWords } from '@/app/complete-plan';
import type { Actor } from '@/flows/door/rights';
import { settleMissed } from '@/flows/plan/change-charge';
import {
  cancelPlan,
  changeAmount,
  duplicatePlan,
  finishEarly,
  pausePlan,
  resumePlan,
  withdrawAtDesk,
} from '@/flows/plan/change-plan';
import { discardPlan, keepPlan } from '@/flows/plan/plans';
import { KeepPlanInput, PlanActionInput } from '@/input/plan-input';

export const PUT = desk(KeepPlanInput, (actor, { input, params }) =>
  keepPlan(actor, params.id ?? '', planWords(input), input.revision),
);

export const DELETE = desk(Nothing, (actor, { params }) => discardPlan(actor, params.id ?? ''));

const ACTIONS: Readonly<
  Record<PlanActionInput['action'], (actor: Actor, id: string, input: PlanActionInput) => Promise<unknown>>
> = {
  pause: (actor, id, { until }) => pausePlan(actor, id, until ?? ''),
  resume: resumePlan,
  cancel: (actor, id, { keepOwed }) => cancelPlan(actor, id, false, keepOwed ?? false),
  'cancel-later': (actor, id) => cancelPlan(actor, id, true),
  'finish-early': finishEarly,
  price: (actor, id, { price }) => changeAmount(actor, id, price ?? ''),
  missed: (actor, id, { which }) => settleMissed(actor, id, which ?? 'none'),
  withdraw: withdrawAtDesk,
  duplicate: async (actor, id) => ({ id: await duplicatePlan(actor, id) }),
};

export const POST = desk(PlanActionInput, (actor, { input, params }) =>
  ACTIONS[input.action](actor, params.id ?? '', input),
);

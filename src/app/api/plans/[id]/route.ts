import { desk, Nothing } from '@/app/answer';
import { KeepPlanInput, PlanDeedInput } from '@/app/input/plan-input';
import { planWords } from '@/app/whole-plan';
import type { Actor } from '@/flows/access';
import {
  cancelPlan,
  changeAmount,
  duplicatePlan,
  finishEarly,
  pausePlan,
  resumePlan,
  withdrawAtDesk,
} from '@/flows/plans/plan-deeds';
import { discardPlan, keepPlan } from '@/flows/plans/plans';

export const PUT = desk(KeepPlanInput, (actor, { input, params }) =>
  keepPlan(actor, params.id ?? '', planWords(input), input.revision),
);

export const DELETE = desk(Nothing, (actor, { params }) => discardPlan(actor, params.id ?? ''));

const DEEDS: Readonly<
  Record<PlanDeedInput['deed'], (actor: Actor, id: string, input: PlanDeedInput) => Promise<unknown>>
> = {
  pause: pausePlan,
  resume: resumePlan,
  cancel: (actor, id) => cancelPlan(actor, id, false),
  'cancel-later': (actor, id) => cancelPlan(actor, id, true),
  'finish-early': finishEarly,
  price: (actor, id, { price }) => changeAmount(actor, id, price ?? ''),
  withdraw: withdrawAtDesk,
  duplicate: async (actor, id) => ({ id: await duplicatePlan(actor, id) }),
};

export const POST = desk(PlanDeedInput, (actor, { input, params }) => DEEDS[input.deed](actor, params.id ?? '', input));

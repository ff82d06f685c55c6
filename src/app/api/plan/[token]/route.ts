import { open } from '@/app/answer';
import { AcceptPlanInput } from '@/app/input/plan-input';
import { acceptPlan } from '@/flows/plan/plans';

export const POST = open(AcceptPlanInput, ({ input, params, address }) =>
  acceptPlan(params.token ?? '', input, address),
);

import { open } from '@/app/answer';
import { acceptPlan } from '@/flows/plan/plans';
import { AcceptPlanInput } from '@/input/plan-input';

export const POST = open(AcceptPlanInput, ({ input, params, address }) =>
  acceptPlan(params.token ?? '', input, address),
);

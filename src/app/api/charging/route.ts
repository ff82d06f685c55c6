import { desk } from '@/app/answer';
import { CHOICE_BODY } from '@/app/body';
import { keepCharging } from '@/flows/plan/charging-policy';
import { ChargingInput } from '@/input/plan-input';

export const PUT = desk(
  ChargingInput,
  (actor, { input: { wording, ...policy } }) => keepCharging(actor, policy, wording),
  { most: CHOICE_BODY },
);

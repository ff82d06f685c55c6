import { desk } from '@/app/answer';
import { ChargingInput } from '@/app/input/plan-input';
import { keepCharging } from '@/flows/plan/charging-policy';

export const PUT = desk(ChargingInput, (actor, { input: { wording, ...policy } }) =>
  keepCharging(actor, policy, wording),
);

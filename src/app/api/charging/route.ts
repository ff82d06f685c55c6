import { desk } from '@/app/answer';
import { keepCharging } from '@/flows/plan/charging-policy';
import { ChargingInput } from '@/input/plan-input';

export const PUT = desk(ChargingInput, (actor, { input: { wording, ...policy } }) =>
  keepCharging(actor, policy, wording),
);

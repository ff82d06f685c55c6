import { desk } from '@/app/answer';
import { keepAccessRules } from '@/flows/house/access-rules';
import { AccessInput } from '@/input/step-input';

export const PUT = desk(AccessInput, (actor, { input }) =>
  keepAccessRules(actor, { stepRequired: input.stepRequired, aboveMinor: BigInt(input.aboveMinor) }),
);

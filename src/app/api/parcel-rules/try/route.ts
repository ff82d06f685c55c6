import { desk } from '@/app/answer';
import { tryRules } from '@/flows/parcel/profiles';
import { TryRulesInput } from '@/input/parcel-input';

export const POST = desk(TryRulesInput, (actor, { input: { rules, valueMinor, ...example } }) =>
  tryRules(actor, rules, { ...example, valueMinor: BigInt(valueMinor) }),
);

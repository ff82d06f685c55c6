import { desk } from '@/app/answer';
import { keepRules } from '@/flows/parcel/profiles';
import { ParcelRulesInput } from '@/input/parcel-input';

export const PUT = desk(ParcelRulesInput, (actor, { input }) => keepRules(actor, input.rules));

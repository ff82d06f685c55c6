import { desk } from '@/app/answer';
import { completeCode } from '@/app/complete-code';
import { storeCode } from '@/flows/offer/codes';
import { CodeInput } from '@/input/offer-records-input';

export const POST = desk(CodeInput, async (actor, { input }) => ({
  id: (await storeCode(actor, null, completeCode(input))).id,
}));

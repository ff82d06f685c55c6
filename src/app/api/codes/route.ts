import { desk } from '@/app/answer';
import { completeCode } from '@/app/complete-code';
import { CodeInput } from '@/app/input/offer-records-input';
import { storeCode } from '@/flows/offer/codes';

export const POST = desk(CodeInput, async (actor, { input }) => ({
  id: (await storeCode(actor, null, completeCode(input))).id,
}));

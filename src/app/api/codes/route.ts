import { desk } from '@/app/answer';
import { CodeInput } from '@/app/input/offer-records-input';
import { wholeCode } from '@/app/whole-code';
import { storeCode } from '@/flows/codes';

export const POST = desk(CodeInput, async (actor, { input }) => ({
  id: (await storeCode(actor, null, wholeCode(input))).id,
}));

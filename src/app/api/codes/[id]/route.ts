import { desk, Nothing } from '@/app/answer';
import { completeCode } from '@/app/complete-code';
import { removeCode, storeCode } from '@/flows/offer/codes';
import { CodeInput } from '@/input/offer-records-input';

export const PUT = desk(CodeInput, async (actor, { input, params }) => ({
  id: (await storeCode(actor, params.id ?? '', completeCode(input))).id,
}));

export const DELETE = desk(Nothing, (actor, { params }) => removeCode(actor, params.id ?? ''));

import { desk, Nothing } from '@/app/answer';
import { CodeInput } from '@/app/input/offer-records-input';
import { wholeCode } from '@/app/whole-code';
import { removeCode, storeCode } from '@/flows/codes';

export const PUT = desk(CodeInput, async (actor, { input, params }) => ({
  id: (await storeCode(actor, params.id ?? '', wholeCode(input))).id,
}));

export const DELETE = desk(Nothing, (actor, { params }) => removeCode(actor, params.id ?? ''));

import { jsonRegisterSum } from '@/app/(desk)/money/payments/json-register';
import { desk } from '@/app/answer';
import { registerSums } from '@/flows/register/register';
import { RegisterAskInput, registerAskOf } from '@/input/register-input';

export const GET = desk(RegisterAskInput, async (actor, { input }) =>
  (await registerSums(actor, registerAskOf(input))).map(jsonRegisterSum),
);

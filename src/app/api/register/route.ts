import { jsonRegisterRow } from '@/app/(desk)/money/payments/json-register';
import { desk } from '@/app/answer';
import { registerOf } from '@/flows/register/register';
import { saveRegister } from '@/flows/register/saved-registers';
import { RegisterPageInput, registerAskOf, SaveRegisterInput } from '@/input/register-input';

export const GET = desk(RegisterPageInput, async (actor, { input }) => {
  const after = input.key && input.id ? { key: input.key, id: input.id } : null;
  const { business, today, rows, next } = await registerOf(actor, registerAskOf(input), after);
  return { rows: rows.map((row) => jsonRegisterRow(row, business, today)), next };
});

export const POST = desk(SaveRegisterInput, (actor, { input }) =>
  saveRegister(actor, input.name, registerAskOf(input.asked)),
);

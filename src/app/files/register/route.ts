import { desk, streamAnswer } from '@/app/answer';
import { registerFile } from '@/flows/register/register';
import { RegisterFileInput, registerAskOf } from '@/input/register-input';

const TYPES = { csv: 'text/csv', json: 'application/json' } as const;

export const GET = desk(RegisterFileInput, async (actor, { input }) =>
  streamAnswer(
    `payments.${input.form}`,
    TYPES[input.form],
    await registerFile(actor, registerAskOf(input), input.form),
  ),
);

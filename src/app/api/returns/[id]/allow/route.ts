import { desk } from '@/app/answer';
import { allowReturn } from '@/flows/returning/returns';
import { AllowReturnInput } from '@/input/return-input';

export const POST = desk(AllowReturnInput, (actor, { input, params }) =>
  allowReturn(actor, params.id ?? '', input.answer, input.withLabel),
);

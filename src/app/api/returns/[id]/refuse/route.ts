import { desk } from '@/app/answer';
import { refuseReturn } from '@/flows/returning/returns';
import { RefuseReturnInput } from '@/input/return-input';

export const POST = desk(RefuseReturnInput, (actor, { input, params }) =>
  refuseReturn(actor, params.id ?? '', input.answer),
);

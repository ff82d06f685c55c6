import { desk } from '@/app/answer';
import { receiveReturn } from '@/flows/returning/returns';
import { ReceiveReturnInput } from '@/input/return-input';

export const POST = desk(ReceiveReturnInput, (actor, { input, params }) =>
  receiveReturn(
    actor,
    params.id ?? '',
    input.lines.map((line) => ({ ...line })),
  ),
);

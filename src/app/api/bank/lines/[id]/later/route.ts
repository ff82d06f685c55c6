import { desk } from '@/app/answer';
import { leaveLine } from '@/flows/bank/take-match';
import { LaterInput } from '@/input/bank-input';

export const POST = desk(LaterInput, (actor, { params, input }) => leaveLine(actor, params.id ?? '', input.later));

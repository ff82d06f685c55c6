import { desk } from '@/app/answer';
import { closeBusiness } from '@/flows/keeping/closing';
import { ClosingInput } from '@/input/keeping-input';

export const POST = desk(ClosingInput, (actor, { input }) => closeBusiness(actor, input.name));

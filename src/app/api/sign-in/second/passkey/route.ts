import { open } from '@/app/answer';
import { stepPasskey } from '@/flows/house/steps/half';
import { HalfInput } from '@/input/step-input';

export const POST = open(HalfInput, ({ input }) => stepPasskey(input.half));

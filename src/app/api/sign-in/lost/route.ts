import { open } from '@/app/answer';
import { askLostSteps } from '@/flows/house/steps/lost';
import { HalfInput } from '@/input/step-input';

export const POST = open(HalfInput, ({ input }) => askLostSteps(input.half));

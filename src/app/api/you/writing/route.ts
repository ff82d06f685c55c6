import { desk } from '@/app/answer';
import { keepWriting } from '@/flows/house/own-settings';
import { WritingInput } from '@/input/own-settings-input';

export const PUT = desk(WritingInput, (actor, { input }) =>
  keepWriting(actor, { days: input.days, numbers: input.numbers }),
);

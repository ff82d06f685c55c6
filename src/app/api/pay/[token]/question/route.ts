import { open } from '@/app/answer';
import { QuestionInput } from '@/app/input/pay-input';
import { askQuestion } from '@/flows/invoice/consent';

export const POST = open(QuestionInput, ({ input, params, address }) =>
  askQuestion(params.token ?? '', input, address),
);

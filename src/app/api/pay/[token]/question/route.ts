import { open } from '@/app/answer';
import { askQuestion } from '@/flows/invoice/consent';
import { QuestionInput } from '@/input/pay-input';

export const POST = open(QuestionInput, ({ input, params, address }) =>
  askQuestion(params.token ?? '', input, address),
);

import { desk } from '@/app/answer';
import { prepareAnswer } from '@/flows/dispute/answer-dispute';
import { PreparedAnswerInput } from '@/input/dispute-input';

export const PUT = desk(PreparedAnswerInput, (actor, { params, input: { words, fileIds, leftOut } }) =>
  prepareAnswer(actor, params.id ?? '', { words, fileIds, leftOut }),
);

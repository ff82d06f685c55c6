import { desk } from '@/app/answer';
import { AnswerInput } from '@/app/input/follow-input';
import { answerQuestion } from '@/flows/invoice/answer-question';

export const POST = desk(AnswerInput, (actor, { input, params }) => answerQuestion(actor, params.id ?? '', input.text));

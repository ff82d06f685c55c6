import { desk } from '@/app/answer';
import { answerQuestion } from '@/flows/invoice/answer-question';
import { AnswerInput } from '@/input/follow-input';

export const POST = desk(AnswerInput, (actor, { input, params }) => answerQuestion(actor, params.id ?? '', input.text));

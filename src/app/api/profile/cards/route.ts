import { desk } from '@/app/answer';
import { answerForCards } from '@/flows/house/first-day';
import { CardAnswersInput } from '@/input/people-input';

export const PUT = desk(CardAnswersInput, (actor, { input }) => answerForCards(actor, input));

import { desk, Nothing, textAnswer } from '@/app/answer';
import { offerAnswersCsv } from '@/flows/offer/answers';

export const GET = desk(Nothing, async (actor, { params }) =>
  textAnswer('answers.csv', 'text/csv', await offerAnswersCsv(actor, params.id ?? '')),
);

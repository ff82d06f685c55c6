import { desk, Nothing, textAnswer } from '@/app/answer';
import { planFiguresCsv } from '@/flows/plan/upcoming';

export const GET = desk(Nothing, async (actor) =>
  textAnswer('plan-figures.csv', 'text/csv', await planFiguresCsv(actor)),
);

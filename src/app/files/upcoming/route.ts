import { desk, textAnswer } from '@/app/answer';
import { UpcomingInput } from '@/app/input/plan-input';
import { upcomingWords } from '@/app/json-upcoming';
import { upcomingCsv } from '@/flows/plan/upcoming';

export const GET = desk(
  UpcomingInput,
  async (actor, { input }) => textAnswer('charges.csv', 'text/csv', await upcomingCsv(actor, upcomingWords(input))),
  'address',
);

import { desk, textAnswer } from '@/app/answer';
import { upcomingWords } from '@/app/json-upcoming';
import { upcomingCsv } from '@/flows/plan/upcoming';
import { UpcomingInput } from '@/input/plan-input';

export const GET = desk(
  UpcomingInput,
  async (actor, { input }) => textAnswer('charges.csv', 'text/csv', await upcomingCsv(actor, upcomingWords(input))),
  { from: 'address' },
);

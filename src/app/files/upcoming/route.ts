import { desk, textAnswer } from '@/app/answer';
import { UpcomingInput } from '@/app/input/plan-input';
import { upcomingWords } from '@/app/wire-upcoming';
import { upcomingCsv } from '@/flows/plans/upcoming';

export const GET = desk(
  UpcomingInput,
  async (actor, { input }) => textAnswer('charges.csv', 'text/csv', await upcomingCsv(actor, upcomingWords(input))),
  'address',
);

import { desk, streamAnswer } from '@/app/answer';
import { logFile } from '@/flows/log/log';
import { WordsInput } from '@/input/people-input';

export const GET = desk(WordsInput, async (actor, { input }) =>
  streamAnswer('log.csv', 'text/csv', await logFile(actor, input.words)),
);

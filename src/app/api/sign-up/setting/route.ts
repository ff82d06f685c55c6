import { open } from '@/app/answer';
import { settingGuess } from '@/flows/house/sign-up';
import { GuessInput } from '@/input/people-input';

export const GET = open(GuessInput, ({ input }) =>
  settingGuess(input.zone, input.languages.split(',').filter(Boolean)),
);

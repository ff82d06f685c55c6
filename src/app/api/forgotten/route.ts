import { open } from '@/app/answer';
import { askForPassword } from '@/flows/house/forgotten';
import { ForgottenInput } from '@/input/people-input';

export const POST = open(ForgottenInput, ({ input, address }) =>
  askForPassword(input.email, input.work ?? {}, address),
);

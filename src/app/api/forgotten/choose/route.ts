import { open } from '@/app/answer';
import { chooseForgotten } from '@/flows/house/forgotten';
import { ChosenPasswordInput } from '@/input/people-input';

export const POST = open(ChosenPasswordInput, ({ input, address }) =>
  chooseForgotten(input.token, input.fresh, address),
);

import { open } from '@/app/answer';
import { beginLost } from '@/flows/house/steps/lost';
import { LinkInput } from '@/input/people-input';

export const POST = open(LinkInput, ({ input, address }) => beginLost(input.token, address));

import { open } from '@/app/answer';
import { agreeToAddress } from '@/flows/house/new-address';
import { LinkInput } from '@/input/people-input';

export const POST = open(LinkInput, ({ input }) => agreeToAddress(input.token));

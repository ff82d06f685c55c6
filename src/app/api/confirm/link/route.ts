import { open } from '@/app/answer';
import { confirmByLink } from '@/flows/house/confirm';
import { LinkInput } from '@/input/people-input';

export const POST = open(LinkInput, ({ input, address }) => confirmByLink(input.token, address));

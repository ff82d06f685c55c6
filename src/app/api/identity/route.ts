import { desk } from '@/app/answer';
import { keepMembers } from '@/flows/identity/identity';
import { MembersInput } from '@/input/identity-input';

export const PUT = desk(MembersInput, (actor, { input }) => keepMembers(actor, input.members));

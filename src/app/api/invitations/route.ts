import { desk } from '@/app/answer';
import { invite } from '@/flows/house/people';
import { InviteInput } from '@/input/people-input';

export const POST = desk(InviteInput, (actor, { input }) => invite(actor, input.email, input.role, input.extra));

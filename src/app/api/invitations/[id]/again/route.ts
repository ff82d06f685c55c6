import { desk, Nothing } from '@/app/answer';
import { inviteAgain } from '@/flows/house/people';

export const POST = desk(Nothing, (actor, { params }) => inviteAgain(actor, params.id ?? ''));

import { desk, Nothing } from '@/app/answer';
import { withdrawInvitation } from '@/flows/house/people';

export const DELETE = desk(Nothing, (actor, { params }) => withdrawInvitation(actor, params.id ?? ''));

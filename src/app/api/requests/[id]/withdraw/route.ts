import { desk, Nothing } from '@/app/answer';
import { withdrawRequest } from '@/flows/requests';

export const POST = desk(Nothing, (actor, { params }) => withdrawRequest(actor, params.id ?? ''));

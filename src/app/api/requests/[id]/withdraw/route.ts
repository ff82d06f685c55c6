import { desk, Nothing } from '@/app/answer';
import { withdrawRequest } from '@/flows/offer/requests';

export const POST = desk(Nothing, (actor, { params }) => withdrawRequest(actor, params.id ?? ''));

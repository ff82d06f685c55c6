import { desk, mailAnswer, Nothing } from '@/app/answer';
import { sampleRequest } from '@/flows/offer/requests';

export const GET = desk(Nothing, async (actor, { params }) => mailAnswer(await sampleRequest(actor, params.id ?? '')));

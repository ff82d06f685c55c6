import { desk, mailAnswer, Nothing } from '@/app/answer';
import { proofLetter } from '@/flows/invoice/proof';

export const GET = desk(Nothing, async (actor, { params }) => mailAnswer(await proofLetter(actor, params.id ?? '')));

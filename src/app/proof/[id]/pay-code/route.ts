import { desk, fileAnswer, Nothing } from '@/app/answer';
import { proofPayCode } from '@/flows/invoice/proof';

export const GET = desk(Nothing, async (actor, { params }) => fileAnswer(await proofPayCode(actor, params.id ?? '')));

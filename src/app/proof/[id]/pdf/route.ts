import { desk, fileAnswer, Nothing } from '@/app/answer';
import { proofPdf } from '@/flows/invoice/proof';

export const GET = desk(Nothing, async (actor, { params }) => fileAnswer(await proofPdf(actor, params.id ?? '')));

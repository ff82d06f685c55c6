import { desk, fileAnswer, Nothing } from '@/app/answer';
import { deskCreditPdf } from '@/flows/file/kept-files';

export const GET = desk(Nothing, async (actor, { params }) => fileAnswer(await deskCreditPdf(actor, params.id ?? '')));

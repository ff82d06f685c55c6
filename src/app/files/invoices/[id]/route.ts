import { desk, fileAnswer, Nothing } from '@/app/answer';
import { deskInvoicePdf } from '@/flows/file/kept-files';

export const GET = desk(Nothing, async (actor, { params }) => fileAnswer(await deskInvoicePdf(actor, params.id ?? '')));

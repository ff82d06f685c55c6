import { desk, fileAnswer, Nothing } from '@/app/answer';
import { deskReceiptPdf } from '@/flows/file/kept-files';

export const GET = desk(Nothing, async (actor, { params }) =>
  fileAnswer(await deskReceiptPdf(actor, params.id ?? '', params.number ?? '')),
);

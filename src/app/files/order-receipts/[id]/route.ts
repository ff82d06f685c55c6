import { desk, fileAnswer, Nothing } from '@/app/answer';
import { paymentReceiptPdf } from '@/flows/file/kept-files';

export const GET = desk(Nothing, async (actor, { params }) =>
  fileAnswer(await paymentReceiptPdf(actor, params.id ?? '')),
);

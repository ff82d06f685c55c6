import { fileAnswer, Nothing, open } from '@/app/answer';
import { linkedReceiptPdf } from '@/flows/file/kept-files';

export const GET = open(Nothing, async ({ params }) =>
  fileAnswer(await linkedReceiptPdf(params.token ?? '', params.number ?? '')),
);

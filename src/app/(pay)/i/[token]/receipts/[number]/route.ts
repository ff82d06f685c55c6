import { fileAnswer, Nothing, open } from '@/app/answer';
import { linkedReceiptPdf } from '@/flows/files';

export const GET = open(Nothing, async ({ params }) =>
  fileAnswer(await linkedReceiptPdf(params.token ?? '', params.number ?? '')),
);

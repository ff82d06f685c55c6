import { fileAnswer, Nothing, open } from '@/app/answer';
import { linkedInvoicePdf } from '@/flows/file/kept-files';

export const GET = open(Nothing, async ({ params }) => fileAnswer(await linkedInvoicePdf(params.token ?? '')));

import { fileAnswer, Nothing, open } from '@/app/answer';
import { linkedInvoiceXml } from '@/flows/file/kept-files';

export const GET = open(Nothing, async ({ params }) => fileAnswer(await linkedInvoiceXml(params.token ?? '')));

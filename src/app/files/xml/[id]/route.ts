import { desk, fileAnswer, Nothing } from '@/app/answer';
import { deskInvoiceXml } from '@/flows/file/kept-files';

export const GET = desk(Nothing, async (actor, { params }) => fileAnswer(await deskInvoiceXml(actor, params.id ?? '')));

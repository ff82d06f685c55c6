import { desk, fileAnswer, Nothing } from '@/app/answer';
import { deskCreditXml } from '@/flows/file/kept-files';

export const GET = desk(Nothing, async (actor, { params }) => fileAnswer(await deskCreditXml(actor, params.id ?? '')));

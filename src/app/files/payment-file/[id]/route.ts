import { desk, fileAnswer, Nothing } from '@/app/answer';
import { paymentFile } from '@/flows/dispute/file-paper';

export const GET = desk(Nothing, async (actor, { params }) => fileAnswer(await paymentFile(actor, params.id ?? '')));

import { desk, fileAnswer, Nothing } from '@/app/answer';
import { pickingFile } from '@/flows/parcel/parcel-papers';

export const GET = desk(Nothing, async (actor) => fileAnswer(await pickingFile(actor)));

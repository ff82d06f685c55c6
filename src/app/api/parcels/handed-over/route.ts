import { desk, fileAnswer, Nothing } from '@/app/answer';
import { handoverFile } from '@/flows/parcel/pick-up';

export const GET = desk(Nothing, async (actor) => fileAnswer(await handoverFile(actor)));

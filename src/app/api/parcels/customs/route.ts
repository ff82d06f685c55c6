import { desk, fileAnswer } from '@/app/answer';
import { customsFile } from '@/flows/parcel/customs';
import { ParcelIdsInput } from '@/input/parcel-input';

export const GET = desk(ParcelIdsInput, async (actor, { input: { ids } }) =>
  fileAnswer(await customsFile(actor, ids.split(','))),
);

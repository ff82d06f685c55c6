import { desk, fileAnswer } from '@/app/answer';
import { labelFile } from '@/flows/parcel/parcel-papers';
import { LabelsInput } from '@/input/parcel-input';

export const GET = desk(LabelsInput, async (actor, { input: { ids, as = 'pdf', sheet = 'a6', begin = '0' } }) =>
  fileAnswer(await labelFile(actor, ids.split(','), { as, sheet, begin: Number(begin) })),
);

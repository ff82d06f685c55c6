import { desk, fileAnswer } from '@/app/answer';
import { slipFile } from '@/flows/parcel/parcel-papers';
import { LabelsInput } from '@/input/parcel-input';

export const GET = desk(LabelsInput, async (actor, { input }) =>
  fileAnswer(await slipFile(actor, input.ids.split(','))),
);

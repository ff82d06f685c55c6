import { open } from '@/app/answer';
import { storeAnswer } from '@/flows/file/store-file';
import { FileNameInput } from '@/input/file-input';

export const POST = open(
  FileNameInput,
  async ({ input, params, file, address }) => storeAnswer(params.name ?? '', input.name, file, address),
  { from: 'address' },
);

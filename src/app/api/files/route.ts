import { desk } from '@/app/answer';
import { storeFile } from '@/flows/file/store-file';
import { UploadInput } from '@/input/file-input';

/** The body is the file itself; what it is for and its name stand in the address. */
export const POST = desk(
  UploadInput,
  async (actor, { input, file }) => storeFile(actor, input.name, input.purpose, await file()),
  { from: 'address' },
);

import { open } from '@/app/answer';
import { storePictureByOrder } from '@/flows/file/store-file';
import { FileNameInput } from '@/input/file-input';

/** The body is the picture itself. */
export const POST = open(
  FileNameInput,
  ({ params: { token = '' }, input, file, address }) => storePictureByOrder(token, input.name, file, address),
  { from: 'address' },
);

import { open } from '@/app/answer';
import { storePictureByInvoice } from '@/flows/file/store-file';
import { FileNameInput } from '@/input/file-input';

/** The body is the picture itself. */
export const POST = open(
  FileNameInput,
  ({ params: { token = '' }, input, file, address }) => storePictureByInvoice(token, input.name, file, address),
  { from: 'address' },
);

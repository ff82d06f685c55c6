import { desk } from '@/app/answer';
import { Refusal } from '@/flows/door/refusal';
import { MOST_BYTES, storeFile } from '@/flows/file/store-file';
import { UploadInput } from '@/input/file-input';

/** The body is the file itself; what it is for and its name stand in the address. */
export const POST = desk(
  UploadInput,
  async (actor, { input, request }) => {
    if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES) throw new Refusal('file-too-large');
    return storeFile(actor, input.name, input.purpose, Buffer.from(await request.arrayBuffer()));
  },
  'address',
);

import { open } from '@/app/answer';
import { Refusal } from '@/flows/door/refusal';
import { MOST_BYTES, storeAnswer } from '@/flows/file/store-file';
import { FileNameInput } from '@/input/file-input';

export const POST = open(
  FileNameInput,
  async ({ input, params, request, address }) => {
    if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES) throw new Refusal('file-too-large');
    return storeAnswer(params.name ?? '', input.name, Buffer.from(await request.arrayBuffer()), address);
  },
  'address',
);

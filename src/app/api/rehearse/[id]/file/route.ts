import { randomUUID } from 'node:crypto';
import { desk } from '@/app/answer';
import { FileNameInput } from '@/input/file-input';

/** A file handed in at a rehearsal is not kept. */
export const POST = desk(FileNameInput, async (_actor, { input }) => ({ id: randomUUID(), name: input.name }), {
  from: 'address',
});

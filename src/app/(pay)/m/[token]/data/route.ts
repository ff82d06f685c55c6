import { Nothing, open, streamAnswer } from '@/app/answer';
import { ownArchive } from '@/flows/keeping/customer-data';

export const GET = open(Nothing, async ({ params }) => {
  const { name, parts } = await ownArchive(params.token ?? '');
  return streamAnswer(name, 'application/zip', parts);
});

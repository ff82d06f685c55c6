import { desk, Nothing, streamAnswer } from '@/app/answer';
import { customerArchive } from '@/flows/keeping/customer-data';

export const GET = desk(Nothing, async (actor, { params }) => {
  const { name, parts } = await customerArchive(actor, params.id ?? '');
  return streamAnswer(name, 'application/zip', parts);
});

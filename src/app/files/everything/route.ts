import { desk, Nothing, streamAnswer } from '@/app/answer';
import { takeAlong } from '@/flows/keeping/take-along';

export const GET = desk(Nothing, async (actor) => {
  const { name, parts } = await takeAlong(actor);
  return streamAnswer(name, 'application/zip', parts);
});

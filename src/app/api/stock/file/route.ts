import { desk, Nothing, textAnswer } from '@/app/answer';
import { stockFile } from '@/flows/stock/stock-desk';

export const GET = desk(Nothing, async (actor) => {
  const { name, text } = await stockFile(actor);
  return textAnswer(name, 'text/csv', text);
});

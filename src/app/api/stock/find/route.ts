import { jsonStock } from '@/app/(desk)/deliver/json-stock';
import { desk } from '@/app/answer';
import { businessToday } from '@/flows/payment/payment-list';
import { stockPage } from '@/flows/stock/stock-desk';
import { WordsInput } from '@/input/people-input';

const FOUND = 12;

/** Things of which stock is kept, found as one types. */
export const GET = desk(WordsInput, async (actor, { input: { words } }) => {
  const { rows } = await stockPage(actor, { words }, null);
  const business = (await businessToday(actor)).business;
  return rows.slice(0, FOUND).map((row) => jsonStock(row, null, business));
});

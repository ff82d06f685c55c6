import { jsonStock } from '@/app/(desk)/deliver/json-stock';
import { desk } from '@/app/answer';
import { businessToday } from '@/flows/payment/payment-list';
import { stockByCode } from '@/flows/stock/stock-desk';
import { CodesInput } from '@/input/stock-input';

/** Things by the codes of a list or of a reader. */
export const POST = desk(CodesInput, async (actor, { input }) => {
  const rows = await stockByCode(actor, input.codes);
  const business = (await businessToday(actor)).business;
  return rows.map((row) => jsonStock(row, null, business));
});

import { jsonStock } from '@/app/(desk)/deliver/json-stock';
import { desk } from '@/app/answer';
import { mayDo } from '@/core/person/rights';
import { businessToday } from '@/flows/payment/payment-list';
import { stockCosts, stockPage } from '@/flows/stock/stock-desk';
import { StockPageInput } from '@/input/stock-input';

export const GET = desk(StockPageInput, async (actor, { input: { words = '', low, key, id, place = -1 } }) => {
  const after = key && id ? { key, itemId: id, place } : null;
  const { rows, next } = await stockPage(actor, { words, lowOnly: low === 'yes' }, after);
  const costs = mayDo(actor, 'see') ? await stockCosts(actor, rows) : null;
  const business = (await businessToday(actor)).business;
  return { rows: rows.map((row) => jsonStock(row, costs, business)), next };
});

import { desk } from '@/app/answer';
import { itemRow } from '@/app/rows';
import { businessToday } from '@/flows/payment/payment-list';
import { itemsPage } from '@/flows/records/items';
import { ItemPageInput } from '@/input/item-input';

export const GET = desk(ItemPageInput, async (actor, { input }) => {
  const after = input.key !== undefined && input.id ? { key: input.key, id: input.id } : null;
  const { business } = await businessToday(actor);
  const page = await itemsPage(actor, input.words ?? '', after);
  return { rows: page.rows.map((item) => itemRow(item, business.currency)), next: page.next };
});

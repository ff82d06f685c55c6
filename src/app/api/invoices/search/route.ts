import { jsonRow } from '@/app/(desk)/ask/invoices/json-row';
import { desk } from '@/app/answer';
import { searchInvoices } from '@/flows/invoice/search-invoices';
import { businessToday } from '@/flows/payment/payment-list';
import { askOf, SearchInput } from '@/input/search-input';

export const GET = desk(SearchInput, async (actor, { input }) => {
  const { business, today } = await businessToday(actor);
  const after = input.key !== undefined && input.id ? { key: input.key, id: input.id } : null;
  const page = await searchInvoices(actor, askOf(input), after);
  return { rows: page.rows.map((row) => jsonRow(row, business, today)), next: page.next };
});

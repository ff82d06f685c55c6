import { wireRow } from '@/app/(desk)/ask/invoices/wire-row';
import { desk } from '@/app/answer';
import { askOf, SearchInput } from '@/app/input/search-input';
import { businessToday } from '@/flows/payment-list';
import { searchInvoices } from '@/flows/search-invoices';

export const GET = desk(SearchInput, async (actor, { input }) => {
  const { business, today } = await businessToday(actor);
  const after = input.key !== undefined && input.id ? { key: input.key, id: input.id } : null;
  const page = await searchInvoices(actor, askOf(input), after);
  return { rows: page.rows.map((row) => wireRow(row, business, today)), next: page.next };
});

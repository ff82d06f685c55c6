import { desk } from '@/app/answer';
import { customerRow } from '@/app/rows';
import { customersPage } from '@/flows/records/customers';
import { CustomerPageInput } from '@/input/customer-input';

export const GET = desk(CustomerPageInput, async (actor, { input }) => {
  const after = input.key !== undefined && input.id ? { key: input.key, id: input.id } : null;
  const page = await customersPage(actor, { words: input.words ?? '', group: input.group ?? '' }, after);
  return { rows: page.rows.map(customerRow), next: page.next };
});

import { desk } from '@/app/answer';
import { checkCustomers, importCustomers } from '@/flows/records/import-customers';
import { ImportInput } from '@/input/customer-input';
import { textRows } from '@/input/import-input';

export const POST = desk(ImportInput, (actor, { input }) => {
  const work = input.write ? importCustomers : checkCustomers;
  return work(actor, textRows(input.rows), input.mapping, input.onFile ?? 'refuse');
});

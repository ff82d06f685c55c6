import { desk } from '@/app/answer';
import { checkCustomers, importCustomers } from '@/flows/records/import-customers';
import { ImportInput } from '@/input/customer-input';

export const POST = desk(ImportInput, (actor, { input }) => {
  // Whatever a cell is, it is read as text: a row of a file has nothing else.
  const rows = input.rows.map((cells) => cells.map((cell) => (typeof cell === 'string' ? cell : '')));
  const work = input.write ? importCustomers : checkCustomers;
  return work(actor, rows, input.mapping, input.onFile ?? 'refuse');
});

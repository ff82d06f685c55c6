import { type FoundInvoice, invoicesFound } from '@/db/invoice-lists';
import { desk } from '@/flows/door/operation';

/** Invoices by number, reference or who pays, for "Find or do"; nothing for fewer than two signs. */
export const findInvoices = desk('see').run(async (ctx, words: string): Promise<FoundInvoice[]> => {
  const wanted = words.trim();
  if (wanted.length < 2) return Promise.resolve([]);
  return ctx.read((db) => invoicesFound(db, wanted));
});

import { type FoundInvoice, invoicesFound } from '@/db/invoices';
import { readBusiness } from '@/db/transaction';
import { type Actor, requireRight } from './access';

/** Invoices by number, reference or who pays, for "Find or do"; nothing for fewer than two signs. */
export function findInvoices(actor: Actor, words: string): Promise<FoundInvoice[]> {
  requireRight(actor, 'read');
  const wanted = words.trim();
  if (wanted.length < 2) return Promise.resolve([]);
  return readBusiness(actor.businessId, (db) => invoicesFound(db, actor.businessId, wanted));
}

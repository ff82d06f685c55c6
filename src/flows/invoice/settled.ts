import { keepPromises } from '@/db/items';
import type { Tx } from '@/db/pool';
import { dropReminders } from '@/db/reminders';
import { handOverPaid } from '@/flows/parcel/hand-over-sales';

/** What follows once nothing is due of invoices any more: no reminder waits, what was promised leaves the stock, and what is posted can be packed. */
export async function settle(tx: Tx, invoiceIds: readonly string[]): Promise<void> {
  if (invoiceIds.length === 0) return;
  await dropReminders(tx, invoiceIds);
  await keepPromises(tx, invoiceIds);
  await handOverPaid(tx, invoiceIds);
}

import { dropReminders } from '@/db/reminders';
import type { Writing } from '@/flows/door/operation';
import { handOverPaid } from '@/flows/parcel/hand-over-sales';
import { sellPromised } from '@/flows/stock/move-stock';

/** What follows once nothing is due of invoices any more: no reminder waits, what was promised leaves the stock, and what is posted can be packed. */
export async function settle(tx: Writing, invoiceIds: readonly string[]): Promise<void> {
  if (invoiceIds.length === 0) return;
  await dropReminders(tx, invoiceIds);
  await sellPromised(tx, invoiceIds);
  await handOverPaid(tx, invoiceIds);
}

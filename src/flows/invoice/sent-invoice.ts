import type { Invoice } from '@/db/invoices';
import { Refusal } from '@/flows/door/refusal';

/** An invoice that is with its customer. @throws Refusal `already-cancelled`, `invoice-not-sent` */
export const sent = (invoice: Invoice): Invoice => {
  if (invoice.stage === 'cancelled') throw new Refusal('already-cancelled');
  if (invoice.stage !== 'sent') throw new Refusal('invoice-not-sent');
  return invoice;
};

import { type Customer, distinctAddresses } from '@/core/customer/customer';
import type { PrintedInvoice } from '@/core/invoice/printed';
import type { SendWith } from '@/core/invoice/send-with';
import type { Tx } from '@/db/pool';
import { type Outgoing, queueMessages } from '@/flows/message/queue-message';

/** With what a message about an invoice goes out; `offset` is a reminder's days from the due date. */
export type InvoiceMessage = {
  readonly how: SendWith;
  readonly key: string;
  readonly kind?: 'invoice' | 'reminder' | 'changed' | 'cancelled';
  readonly offset?: number;
  /** Further invoices that a reminder is about. */
  readonly others?: readonly string[];
};

/** The messages with which an invoice goes out: one for each address. */
export function invoiceMessages(
  { id: invoiceId, printed }: { readonly id: string; readonly printed: PrintedInvoice },
  customer: Pick<Customer, 'copies' | 'phone'> | null,
  { how, key, kind = 'invoice', offset, others = [] }: InvoiceMessage,
): Outgoing[] {
  const details = {
    ...(how.text.trim() ? { text: how.text.trim() } : {}),
    ...(offset === undefined ? {} : { offset }),
    ...(others.length > 0 ? { others } : {}),
  };
  const base = { kind, invoiceId, details, toName: printed.payer.name } as const;
  if (how.way === 'text' || how.way === 'chat')
    return [{ ...base, key, way: how.way, toAddress: how.phone || customer?.phone || '' }];
  if (how.way !== 'mail') return [];
  const addresses = how.to.length > 0 ? how.to : [printed.payer.email, ...(customer?.copies ?? [])];
  return distinctAddresses(addresses.filter(Boolean)).map((toAddress, at) => ({
    ...base,
    key: at === 0 ? key : `${key}:${toAddress.toLowerCase()}`,
    toAddress,
  }));
}

/** Queues them; false if their key came before. */
export const queueInvoice = async (tx: Tx, ...message: Parameters<typeof invoiceMessages>): Promise<boolean> =>
  (await queueMessages(tx, invoiceMessages(...message))) > 0;

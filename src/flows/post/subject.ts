import { type Business, businessById } from '@/db/businesses';
import { type CreditNote, creditById } from '@/db/credit-notes';
import { type Invoice, invoiceById, invoicesByIds } from '@/db/invoices';
import { type Message, messageById } from '@/db/messages';
import { type Order, orderById } from '@/db/orders';
import { type Receipt, receiptOfPayment } from '@/db/receipts';
import { type Request, requestById } from '@/db/requests';
import type { Letter } from '@/documents/mail/letter';
import type { Context } from '@/flows/door/operation';
import type { File } from '@/flows/file/kept-files';
import { services } from '@/outside/services';

/** All that a message may speak of. */
export type Subject = {
  readonly ctx: Context;
  readonly message: Message;
  readonly business: Business;
  readonly invoice: Invoice | null;
  /** Further invoices of the same customer that it speaks of. */
  readonly others: readonly Invoice[];
  readonly receipt: Receipt | null;
  readonly credit: CreditNote | null;
  readonly order: Order | null;
  readonly request: Request | null;
};

/** A letter with what is attached to it. */
export type Written = Letter & { readonly files: readonly File[] };

/** What a queued message speaks of; null for one that is dealt with already. */
export const subjectOf = (ctx: Context, messageId: string): Promise<Subject | null> =>
  ctx.read(async (db): Promise<Subject | null> => {
    const message = await messageById(db, messageId);
    if (message?.state !== 'queued') return null;
    return {
      ctx,
      message,
      business: await businessById(db),
      invoice: message.invoiceId ? await invoiceById(db, message.invoiceId) : null,
      others: await invoicesByIds(db, message.details.others ?? []),
      receipt: message.paymentId ? await receiptOfPayment(db, message.paymentId) : null,
      credit: message.details.creditId ? await creditById(db, message.details.creditId) : null,
      order: message.orderId ? await orderById(db, message.orderId) : null,
      request: message.requestId ? await requestById(db, message.requestId) : null,
    };
  });

/** An invoice's page for its customer. */
export const invoiceLink = ({ linkToken }: Pick<Invoice, 'linkToken'>): string =>
  `${services().publicUrl}/i/${linkToken}`;

/** Where the customer sees what a message is about. */
export function customerLink({ order, invoice }: Subject): string {
  const { publicUrl } = services();
  if (order) return `${publicUrl}/o/${order.token}`;
  return invoice ? invoiceLink(invoice) : publicUrl;
}

/** Where the business sees the invoice that a message is about. */
export const deskLink = ({ invoice }: Subject): string => `${services().publicUrl}/ask/invoices/${invoice?.id ?? ''}`;

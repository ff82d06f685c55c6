import { asFront, type FrontChoice } from '@/core/front/front';
import { type Business, businessById } from '@/db/businesses';
import { type CreditNote, creditById } from '@/db/credit-notes';
import { type Invoice, invoiceById, invoicesByIds } from '@/db/invoices';
import { type Message, messageById } from '@/db/messages';
import { offerById } from '@/db/offers';
import { type Order, orderById } from '@/db/orders';
import { planById } from '@/db/plans';
import type { Db } from '@/db/pool';
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
  /** As the front sees it under which it was asked. */
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

/** Under which front a message speaks that is about neither an invoice nor an order. */
async function frontOf(db: Db, { planId }: Message, request: Request | null): Promise<FrontChoice> {
  if (planId) return (await planById(db, planId))?.terms.paper ?? {};
  return request ? ((await offerById(db, request.offerId))?.offer ?? {}) : {};
}

/** What a queued message speaks of; null for one that is dealt with already. */
export const subjectOf = (ctx: Context, messageId: string): Promise<Subject | null> =>
  ctx.read(async (db): Promise<Subject | null> => {
    const message = await messageById(db, messageId);
    if (message?.state !== 'queued') return null;
    const invoice = message.invoiceId ? await invoiceById(db, message.invoiceId) : null;
    const order = message.orderId ? await orderById(db, message.orderId) : null;
    const request = message.requestId ? await requestById(db, message.requestId) : null;
    const asked = invoice?.paper ?? order?.offer ?? (await frontOf(db, message, request));
    return {
      ctx,
      message,
      business: asFront(await businessById(db), asked),
      invoice,
      others: await invoicesByIds(db, message.details.others ?? []),
      receipt: message.paymentId ? await receiptOfPayment(db, message.paymentId) : null,
      credit: message.details.creditId ? await creditById(db, message.details.creditId) : null,
      order,
      request,
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

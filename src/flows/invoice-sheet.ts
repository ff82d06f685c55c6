import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { type PrintedInvoice, printedInvoice } from '@/core/invoice/printed';
import type { TimelineLine } from '@/core/invoice/timeline';
import type { BusinessTax } from '@/core/tax/business-tax';
import { type Approval, latestApprovals } from '@/db/approvals';
import { type Business, businessById } from '@/db/businesses';
import { type CreditNote, creditsOf } from '@/db/credit-notes';
import { type Customer, customerById } from '@/db/customers';
import { type Invoice, invoiceById } from '@/db/invoices';
import { type Payment, type PaymentRow, paidPayments, pendingPayment } from '@/db/payments';
import type { Actor } from '@/db/people';
import type { Db } from '@/db/pool';
import { type Question, questionsOf } from '@/db/questions';
import { type Reminder, remindersOf } from '@/db/reminders';
import { taxesOf } from '@/db/taxes';
import { timelineOf } from '@/db/timeline';
import { readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { headingOf, numberAhead, readingOf } from './paper-setting';

export type InvoiceSheet = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly now: Date;
  readonly invoice: Invoice;
  readonly customer: Customer | null;
  readonly taxes: readonly BusinessTax[];
  readonly nextNumber: string;
  /** A draft as it would be printed now; null once it is sent. */
  readonly draftPrinted: PrintedInvoice | null;
  readonly reminders: readonly Reminder[];
  readonly credits: readonly CreditNote[];
  readonly questions: readonly Question[];
  readonly approvals: readonly Approval[];
  readonly payments: readonly PaymentRow[];
  readonly pending: Payment | null;
  readonly timeline: readonly TimelineLine[];
  /** The customer's link; of a draft it opens nothing yet. */
  readonly link: string;
};

/** Everything on an invoice's sheet, composed or sent. @throws Refusal `not-found` */
export async function invoiceSheet(actor: Actor, id: string): Promise<InvoiceSheet> {
  requireRight(actor, 'read');
  const { clock, publicUrl } = services();
  const now = await clock.now();
  const { businessId } = actor;
  return readBusiness(businessId, async (db) => {
    const invoice = found(await invoiceById(db, businessId, id));
    const business = await businessById(db, businessId);
    const today = dateInZone(now, business.zone);
    const customer = invoice.customerId ? await customerById(db, businessId, invoice.customerId) : null;
    return {
      business,
      today,
      now,
      invoice,
      customer,
      taxes: await taxesOf(db, businessId),
      nextNumber: await numberAhead(db, businessId, invoice.paper, today),
      draftPrinted: invoice.printed ? null : await draftPrinted(db, business, invoice, now),
      reminders: await remindersOf(db, businessId, id),
      credits: await creditsOf(db, businessId, id),
      questions: await questionsOf(db, businessId, id),
      approvals: await latestApprovals(db, businessId, id),
      payments: await paidPayments(db, businessId, id),
      pending: await pendingPayment(db, businessId, id),
      timeline: await timelineOf(db, businessId, id),
      link: `${publicUrl}/i/${invoice.linkToken}`,
    };
  });
}

/** A draft as it would be printed at an instant. */
export async function draftPrinted(
  db: Db,
  business: Business,
  { paper }: Pick<Invoice, 'paper'>,
  now: Date,
): Promise<PrintedInvoice> {
  const today = dateInZone(now, business.zone);
  const customer = paper.customerId ? await customerById(db, business.id, paper.customerId) : null;
  const number = await numberAhead(db, business.id, paper, today);
  const reading = await readingOf(db, business, customer, paper);
  return printedInvoice(paper, reading, await headingOf(db, business, customer, paper, number, today));
}

/**
 * The invoice as its customer gets it: as printed once it is sent, else the draft set with the number that it would get
 * today. The proof and the customer's page are drawn from the same record.
 */
export const printedOf = ({ invoice, draftPrinted: draft }: InvoiceSheet): PrintedInvoice =>
  found(invoice.printed ?? draft);

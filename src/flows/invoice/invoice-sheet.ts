import type { CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { type PrintedInvoice, printedInvoice } from '@/core/invoice/printed';
import type { BusinessTax } from '@/core/tax/business-tax';
import type { TimelineLine } from '@/core/timeline/timeline';
import { type Approval, latestApprovals } from '@/db/approvals';
import { type Business, businessById } from '@/db/businesses';
import { type CreditNote, creditsOf } from '@/db/credit-notes';
import { type Customer, customerById } from '@/db/customers';
import { type Invoice, invoiceById, invoicesWithCredit } from '@/db/invoices';
import { openAttempts, type Payment, type PaymentRow, paidPayments } from '@/db/payments';
import type { Db } from '@/db/pool';
import { type Question, questionsOf } from '@/db/questions';
import { type Reminder, remindersOf } from '@/db/reminders';
import { taxesOf } from '@/db/taxes';
import { timelineOf } from '@/db/timeline';
import { desk } from '@/flows/door/operation';
import { found } from '@/flows/door/rights';
import { type PaymentWay, waysOf } from '@/flows/way/payment-way';
import { services } from '@/outside/services';
import { headingOf, numberAhead, numbersAhead, readingOf } from './paper-setting';

/** So many of its payments are followed to the bank on an invoice's sheet; the others on their own. */
const MOST_WAYS = 3;

export type InvoiceSheet = {
  readonly business: Business;
  readonly today: CalendarDate;
  readonly now: Date;
  readonly invoice: Invoice;
  readonly customer: Customer | null;
  readonly taxes: readonly BusinessTax[];
  /** The number that it would get, by the series that is chosen. */
  readonly nextNumbers: Readonly<Record<string, string>>;
  /** A draft as it would be printed now; null once it is sent. */
  readonly draftPrinted: PrintedInvoice | null;
  readonly reminders: readonly Reminder[];
  readonly credits: readonly CreditNote[];
  readonly questions: readonly Question[];
  readonly approvals: readonly Approval[];
  readonly payments: readonly PaymentRow[];
  /** How far the money of its latest payments has come, latest first. */
  readonly ways: readonly PaymentWay[];
  /** What the customer has to their credit on other invoices in its currency, minor units. */
  readonly creditElsewhereMinor: bigint;
  /** The first of the payments that are under way. */
  readonly pending: Payment | null;
  readonly timeline: readonly TimelineLine[];
  /** The customer's link; of a draft it opens nothing yet. */
  readonly link: string;
};

/** Everything on an invoice's sheet, composed or sent. @throws Refusal `not-found` */
export const invoiceSheet = desk('see').run(async (ctx, id: string): Promise<InvoiceSheet> => {
  const { publicUrl } = services();
  const { now } = ctx;
  return ctx.read(async (db) => {
    const invoice = found(await invoiceById(db, id));
    const business = await businessById(db);
    const today = dateInZone(now, business.zone);
    const customer = invoice.customerId ? await customerById(db, invoice.customerId) : null;
    const payments = await paidPayments(db, id);
    return {
      business,
      today,
      now,
      invoice,
      customer,
      taxes: await taxesOf(db),
      nextNumbers: await numbersAhead(db, business, invoice.paper, today),
      draftPrinted: invoice.printed ? null : await draftPrinted(db, business, invoice),
      reminders: await remindersOf(db, id),
      credits: await creditsOf(db, id),
      questions: await questionsOf(db, id),
      approvals: await latestApprovals(db, id),
      payments,
      ways: await waysOf(
        db,
        business,
        payments
          .filter(({ method }) => method !== 'account')
          .slice(-MOST_WAYS)
          .reverse(),
      ),
      creditElsewhereMinor: invoice.customerId
        ? (await invoicesWithCredit(db, invoice.customerId, invoice.currency))
            .filter((other) => other.id !== id)
            .reduce((sum, { creditMinor }) => sum + creditMinor, 0n)
        : 0n,
      pending: (await openAttempts(db, id))[0] ?? null,
      timeline: await timelineOf(db, id),
      link: `${publicUrl}/i/${invoice.linkToken}`,
    };
  });
});

/** A draft as it would be printed at an instant. */
export async function draftPrinted(
  db: Db,
  business: Business,
  { paper }: Pick<Invoice, 'paper'>,
): Promise<PrintedInvoice> {
  const today = dateInZone(db.now, business.zone);
  const customer = paper.customerId ? await customerById(db, paper.customerId) : null;
  const number = await numberAhead(db, business, paper, today);
  const reading = await readingOf(db, business, customer, paper);
  return printedInvoice(paper, reading, { ...(await headingOf(db, business, customer, paper)), number });
}

/**
 * The invoice as its customer gets it: as printed once it is sent, else the draft set with the number that it would get
 * today. The proof and the customer's page are drawn from the same record.
 */
export const printedOf = ({ invoice, draftPrinted: draft }: InvoiceSheet): PrintedInvoice =>
  found(invoice.printed ?? draft);

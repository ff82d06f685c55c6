import { sellerOf } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { addDays, type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { accountLines, agesOf, type Statement } from '@/core/statement/statement';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import type { Db } from '@/db/pool';
import { movementsOf, openItemsOf } from '@/db/statement';
import { statementPdf } from '@/documents/pdf/draw';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { type File, picturesOf } from '@/flows/file/kept-files';
import { localeOf, payerOf } from '@/flows/invoice/paper-setting';
import { queueMessage } from '@/flows/message/queue-message';

/** Which statement: the period (both days in it; empty for the last 90 days up to today) and the currency. */
export type StatementAsked = { readonly from: string; readonly to: string; readonly currency: string };

/** A customer's account as of now, in the customer's language. @param from to days of the period, or empty */
export async function loadStatement(
  db: Db,
  customer: Customer,
  { from, to, currency }: StatementAsked,
): Promise<Statement> {
  const business = await businessById(db);
  const today = dateInZone(db.now, business.zone);
  const end: CalendarDate = isCalendarDate(to) ? to : today;
  const begin: CalendarDate = isCalendarDate(from) && from <= end ? from : addDays(end, -90);
  const asked = currency || customer.currency || business.currency;
  const movements = await movementsOf(db, customer.id, asked, end, business.zone);
  const open = await openItemsOf(db, customer.id, asked);
  return {
    seller: sellerOf(business),
    payer: payerOf(customer, business),
    locale: localeOf(business, customer),
    accent: business.accent,
    logoId: business.logoId,
    currency: asked,
    from: begin,
    to: end,
    ...accountLines(movements, begin, end),
    open,
    ages: agesOf(open, today),
  };
}

/** A customer's statement for the desk. */
export const customerStatement = desk('see').read(
  async (db, customerId: string, asked: StatementAsked): Promise<Statement> => {
    const customer = found(await customerById(db, customerId));
    return loadStatement(db, customer, asked);
  },
);

/** The statement as a PDF. */
export const customerStatementPdf = desk('see').run(
  async (ctx, customerId: string, asked: StatementAsked): Promise<File> => {
    const statement = await customerStatement(ctx.actor, customerId, asked);
    const bytes = await statementPdf(statement, await picturesOf(ctx, statement.logoId));
    return { name: `statement-${statement.to}.pdf`, bytes, type: 'application/pdf' };
  },
);

/** Mails the statement to the customer. @param requestKey one press, one mail @throws Refusal `customer-without-email` */
export const mailStatement = desk('ask').write(
  async (tx, customerId: string, asked: StatementAsked & { requestKey: string; text: string }): Promise<void> => {
    const customer = found(await customerById(tx, customerId));
    if (!customer.email) throw new Refusal('customer-without-email');
    const { from, to, currency, text } = asked;
    await queueMessage(tx, {
      kind: 'statement',
      key: `statement:${customerId}:${asked.requestKey}`,
      customerId,
      toName: customer.name,
      toAddress: customer.email,
      details: { from, to, subject: currency, ...(text.trim() ? { text: text.trim() } : {}) },
    });
  },
);

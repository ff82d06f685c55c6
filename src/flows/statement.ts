import { type Business, sellerOf } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import { addDays, type CalendarDate, isCalendarDate } from '@/core/dates/calendar-date';
import { dateInZone } from '@/core/dates/zone';
import { accountLines, agesOf, type Statement } from '@/core/statement/statement';
import { businessById } from '@/db/businesses';
import { customerById } from '@/db/customers';
import type { Actor } from '@/db/people';
import type { Db } from '@/db/pool';
import { movementsOf, openItemsOf } from '@/db/statement';
import { inBusiness, readBusiness } from '@/db/transaction';
import { statementPdf } from '@/documents/pdf/draw';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { type File, picturesOf } from './files';
import { localeOf, payerOf } from './paper-setting';
import { queueMessage } from './queue-message';
import { Refusal } from './refusal';

/** Which statement: the period (both days in it; empty for the last 90 days up to today) and the currency. */
export type StatementAsked = { readonly from: string; readonly to: string; readonly currency: string };

/** A customer's account as of now, in the customer's language. @param from to days of the period, or empty */
export async function loadStatement(
  db: Db,
  business: Business,
  customer: Customer,
  from: string,
  to: string,
  currency: string,
): Promise<Statement> {
  const today = dateInZone(await services().clock.now(), business.zone);
  const end: CalendarDate = isCalendarDate(to) ? to : today;
  const begin: CalendarDate = isCalendarDate(from) && from <= end ? from : addDays(end, -90);
  const asked = currency || customer.currency || business.currency;
  const movements = await movementsOf(db, business.id, customer.id, asked, end, business.zone);
  const open = await openItemsOf(db, business.id, customer.id, asked);
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
export function customerStatement(actor: Actor, customerId: string, asked: StatementAsked): Promise<Statement> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => {
    const business = await businessById(db, actor.businessId);
    const customer = found(await customerById(db, actor.businessId, customerId));
    return loadStatement(db, business, customer, asked.from, asked.to, asked.currency);
  });
}

/** The statement as a PDF. */
export async function customerStatementPdf(actor: Actor, customerId: string, asked: StatementAsked): Promise<File> {
  const statement = await customerStatement(actor, customerId, asked);
  const bytes = await statementPdf(statement, await picturesOf(actor.businessId, statement.logoId));
  return { name: `statement-${statement.to}.pdf`, bytes, type: 'application/pdf' };
}

/** Mails the statement to the customer. @param requestKey one press, one mail @throws Refusal `customer-without-email` */
export async function mailStatement(
  actor: Actor,
  customerId: string,
  asked: StatementAsked & { requestKey: string; text: string },
): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    const customer = found(await customerById(tx, actor.businessId, customerId));
    if (!customer.email) throw new Refusal('customer-without-email');
    const { from, to, currency, text } = asked;
    await queueMessage(
      tx,
      actor.businessId,
      {
        kind: 'statement',
        key: `statement:${customerId}:${asked.requestKey}`,
        customerId,
        toName: customer.name,
        toAddress: customer.email,
        details: { from, to, subject: currency, ...(text.trim() ? { text: text.trim() } : {}) },
      },
      now,
    );
  });
}

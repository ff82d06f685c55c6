import type { CalendarDate } from '@/core/dates/calendar-date';
import type { InvoiceStatus } from '@/core/invoice/state';
import { typedDecimal } from '@/core/money/typed';
import type { Db } from './pool';
import { many, NONE, type Statement, sql } from './sql';

/** One row of the list. */
export type InvoiceRow = InvoiceStatus & {
  readonly reference: string;
  readonly title: string;
  readonly issuedOn: CalendarDate | null;
  readonly sendAt: Date | null;
  readonly id: string;
  readonly number: string | null;
  readonly customerId: string | null;
  readonly customer: string | null;
  readonly currency: string;
  readonly changedAt: Date;
  readonly settledAt: Date | null;
};

/** Where a page of the list ended: the sort key and the id of its last row. */
export type Cursor = { readonly key: string; readonly id: string };

/** The columns and joins of a row of the list. */
export const INVOICE_ROW = sql`invoices.id, stage, number, invoices.reference, title, issued_on as "issuedOn", send_at as "sendAt", customers.id as "customerId", customers.name as customer, invoices.currency, total_minor as "totalMinor",
    due_minor as "dueMinor", due_on as "dueOn", seen_at is not null as seen, invoices.changed_at as "changedAt", settled_at as "settledAt"
  from invoices left join customers on customers.business_id = invoices.business_id and customers.id = invoices.customer_id`;

/** The three parts of the list, each in the order in which it is read: by due date, latest change first, latest payment first. */
const PARTS = {
  open: { where: sql`stage = 'sent' and due_minor > 0`, key: sql`due_on`, type: sql`date`, descending: false },
  drafts: { where: sql`stage = 'draft'`, key: sql`invoices.changed_at`, type: sql`timestamptz`, descending: true },
  settled: {
    where: sql`stage = 'sent' and due_minor = 0`,
    key: sql`settled_at`,
    type: sql`timestamptz`,
    descending: true,
  },
} as const;

export type ListPart = keyof typeof PARTS;

/** The statement of one page, so that a test can read its plan. */
export function invoicePage(businessId: string, part: ListPart, limit: number, after: Cursor | null): Statement {
  const { where, key, type, descending } = PARTS[part];
  const order = descending ? sql`desc` : sql`asc`;
  const beyond = descending ? sql`<` : sql`>`;
  return sql`select ${INVOICE_ROW} where invoices.business_id = ${businessId} and ${where}
      ${after ? sql`and (${key}, invoices.id) ${beyond} (${after.key}::${type}, ${after.id}::uuid)` : NONE}
      order by ${key} ${order}, invoices.id ${order} limit ${limit}`;
}

/** One page of a part of the list, by key. */
export const invoiceRows = (
  db: Db,
  part: ListPart,
  limit: number,
  after: Cursor | null = null,
): Promise<InvoiceRow[]> => many(db, invoicePage(db.businessId, part, limit, after));

/** A customer's invoices, latest change first. */
export const invoicesOfCustomer = (db: Db, customerId: string, limit: number): Promise<InvoiceRow[]> =>
  many(
    db,
    sql`select ${INVOICE_ROW} where invoices.business_id = ${db.businessId} and customer_id = ${customerId} order by invoices.changed_at desc, invoices.id desc limit ${limit}`,
  );

/** The number that is still open and when it is due, for invoices that are late; oldest first. */
export const lateInvoices = (db: Db, today: CalendarDate, limit: number): Promise<InvoiceRow[]> =>
  many(
    db,
    sql`select ${INVOICE_ROW} where invoices.business_id = ${db.businessId} and stage = 'sent' and due_minor > 0 and due_on < ${today}
      order by due_on, invoices.id limit ${limit}`,
  );

/** The largest open invoice of each day from today on, for the names on the horizon. */
export const largestDue = (
  db: Db,
  currency: string,
  from: CalendarDate,
  to: CalendarDate,
): Promise<{ dueOn: CalendarDate; customer: string; invoiceId: string }[]> =>
  many(
    db,
    sql`select distinct on (due_on) due_on as "dueOn", customers.name as customer, invoices.id as "invoiceId"
        from invoices join customers on customers.business_id = invoices.business_id and customers.id = invoices.customer_id
        where invoices.business_id = ${db.businessId} and invoices.currency = ${currency} and stage = 'sent' and due_minor > 0
          and due_on between ${from} and ${to}
        order by due_on, due_minor desc`,
  );

/** A sum in minor units of a currency with two digits, for finding by sum; null where the words are none. @param sign the typist's */
export function typedTotal(words: string, sign: '.' | ','): bigint | null {
  const number = typedDecimal(words.trim(), sign);
  if (number === null) return null;
  const [whole = '', fraction = ''] = number.split('.');
  return fraction.length <= 2 && whole.length <= 13 ? BigInt(`${whole}${fraction.padEnd(2, '0')}`) : null;
}

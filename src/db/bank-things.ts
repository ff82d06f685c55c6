import type { OpenInvoice, OpenPayment, OpenPayout, OpenRefund } from '@/core/bank/match/things';
import type { Db } from './pool';
import { many, sql } from './sql';

/** Invoices of a currency on which something is due: what a customer can have paid. */
export const invoicesToMatch = (db: Db, currency: string): Promise<OpenInvoice[]> =>
  many(
    db,
    sql`select invoices.id, number, customer_id as "customerId", customers.name as customer, due_minor as due, due_on as "dueOn"
        from invoices join customers on customers.business_id = invoices.business_id and customers.id = invoices.customer_id
        where invoices.business_id = ${db.businessId} and stage = 'sent' and due_minor > 0 and invoices.currency = ${currency}
        order by due_on, number`,
  );

/** Payouts of the business that were sent and stand on no statement yet. */
export const payoutsToMatch = (db: Db, currency: string): Promise<OpenPayout[]> =>
  many(
    db,
    sql`select id, number, amount_minor as amount from payouts p
        where business_id = ${db.businessId} and partner_id is null and currency = ${currency} and state in ('sent', 'arrived')
          and not exists (select from bank_matches m where m.business_id = p.business_id and m.payout_id = p.id and undone_at is null)
        order by number desc limit 400`,
  );

/** Refunds that went out as transfers and stand on no statement yet; minor units. */
export const refundsToMatch = (db: Db, currency: string): Promise<OpenRefund[]> =>
  many(
    db,
    sql`select r.id, r.amount_minor as amount, coalesce(r.wish->'account'->>'holder', customers.name, '') as payee,
          coalesce(invoices.number, orders.reference, '') as about
        from refunds r join payments p on p.business_id = r.business_id and p.id = r.payment_id
          left join customers on customers.business_id = p.business_id and customers.id = p.customer_id
          left join invoices on invoices.business_id = p.business_id and invoices.id = p.invoice_id
          left join orders on orders.business_id = p.business_id and orders.id = p.order_id
        where r.business_id = ${db.businessId} and r.method = 'transfer' and r.state = 'done' and p.currency = ${currency}
          and not exists (select from bank_matches m where m.business_id = r.business_id and m.refund_id = r.id and undone_at is null)
        order by r.at desc limit 1000`,
  );

/** Payments that were written down by hand and stand on no statement yet; minor units. */
export const paymentsToMatch = (db: Db, currency: string): Promise<OpenPayment[]> =>
  many(
    db,
    sql`select p.id, p.method, p.amount_minor as amount, customers.name as customer, p.customer_id as "customerId",
          coalesce(invoices.number, '') as "invoiceNumber", p.reference
        from payments p join customers on customers.business_id = p.business_id and customers.id = p.customer_id
          left join invoices on invoices.business_id = p.business_id and invoices.id = p.invoice_id
        where p.business_id = ${db.businessId} and p.method in ('transfer', 'cheque', 'cash') and p.state = 'paid' and p.currency = ${currency}
          and p.at > ${db.now}::timestamptz - interval '400 days'
          and not exists (select from bank_matches m where m.business_id = p.business_id and m.payment_id = p.id and undone_at is null)
        order by p.at desc limit 2000`,
  );

/** The end-to-end ids under which small sums to confirm our own accounts come. */
export async function checksToMatch(db: Db): Promise<string[]> {
  const rows = await many<{ id: string }>(
    db,
    sql`select id from bank_accounts where business_id = ${db.businessId} and partner_id is null and credits <> '{}'`,
  );
  return rows.map(({ id }) => id);
}

/** Names and accounts under which invoices were paid lately, and whose those were. */
export const paidBefore = (db: Db): Promise<{ name: string; account: string; customerId: string }[]> =>
  many(
    db,
    sql`select distinct l.name, l.other_account as account, i.customer_id as "customerId"
        from bank_matches m join bank_lines l on l.business_id = m.business_id and l.id = m.line_id
          join invoices i on i.business_id = m.business_id and i.id = m.invoice_id
        where m.business_id = ${db.businessId} and m.kind = 'invoice' and undone_at is null
          and m.made_at > ${db.now}::timestamptz - interval '800 days'
        limit 50000`,
  );

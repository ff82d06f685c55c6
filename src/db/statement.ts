import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Movement, OpenItem } from '@/core/statement/statement';
import type { Db } from './pool';
import { many, sql } from './sql';

/** All that was charged to a customer, credited and paid up to a day, in one currency. */
export const movementsOf = (
  db: Db,
  customerId: string,
  currency: string,
  to: CalendarDate,
  zone: string,
): Promise<Movement[]> =>
  many(
    db,
    sql`select issued_on as "on", 'invoice' as kind, number, reference as how, total_minor as "chargedMinor", 0::bigint as "receivedMinor"
          from invoices where business_id = ${db.businessId} and customer_id = ${customerId} and currency = ${currency}
            and stage = 'sent' and issued_on <= ${to}
        union all
        select credit_notes.issued_on, 'credit-note', credit_notes.number, credit_notes.reason, 0, amount_minor
          from credit_notes join invoices on invoices.business_id = credit_notes.business_id and invoices.id = invoice_id
          where credit_notes.business_id = ${db.businessId} and customer_id = ${customerId} and credit_notes.currency = ${currency}
            and stage = 'sent' and credit_notes.issued_on <= ${to}
        union all
        select (settled_at at time zone ${zone})::date, 'payment', coalesce(receipts.number, ''),
            case when method in ('card', 'debit') then coalesce(card_scheme || ' ·' || card_last4, '') else payments.reference end, 0, amount_minor
          from payments left join receipts on receipts.business_id = payments.business_id and payment_id = payments.id
          where payments.business_id = ${db.businessId} and customer_id = ${customerId} and currency = ${currency}
            and payments.invoice_id is not null and (state = 'paid' or (state = 'voided' and method = 'card'))
            and (settled_at at time zone ${zone})::date <= ${to}
        union all
        select (refunds.settled_at at time zone ${zone})::date, 'refund', coalesce(credit_notes.number, ''),
            case when refunds.kind = 'return' then '' else refunds.reason end,
            refunds.amount_minor - refunds.tip_minor, 0
          from refunds join payments on payments.business_id = refunds.business_id and payments.id = refunds.payment_id
            left join credit_notes on credit_notes.business_id = refunds.business_id and credit_notes.id = refunds.credit_id
          where refunds.business_id = ${db.businessId} and payments.customer_id = ${customerId} and payments.currency = ${currency}
            and payments.invoice_id is not null and refunds.state = 'done'
            and (refunds.settled_at at time zone ${zone})::date <= ${to}`,
  );

/** A customer's open invoices in one currency, earliest due first. */
export const openItemsOf = (db: Db, customerId: string, currency: string): Promise<OpenItem[]> =>
  many(
    db,
    sql`select number, issued_on as "issuedOn", due_on as "dueOn", total_minor as "totalMinor", due_minor as "dueMinor"
        from invoices where business_id = ${db.businessId} and customer_id = ${customerId} and currency = ${currency}
          and stage = 'sent' and due_minor > 0 order by due_on, id limit 1000`,
  );

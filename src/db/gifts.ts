import type { Gift } from '@/core/statement/gifts';
import type { Db } from './pool';
import { many, sql } from './sql';

/** Who gave in a year, and what in which currency, in minor units; `sentAt` when the letter over it last went out. */
export type Donor = {
  readonly customerId: string;
  readonly name: string;
  readonly email: string;
  readonly currency: string;
  readonly count: number;
  readonly minor: bigint;
  readonly sentAt: Date | null;
};

/** The donors of a year by name. */
export const donorsOf = (db: Db, year: number): Promise<Donor[]> =>
  many(
    db,
    sql`select customers.id as "customerId", customers.name, customers.email, payments.currency,
          count(*)::int as count, sum(payments.amount_minor + payments.tip_minor - payments.refunded_minor)::bigint as minor,
          (select max(messages.created_at) from messages
             where messages.business_id = ${db.businessId} and messages.customer_id = customers.id and messages.kind = 'gift-letter'
               and messages.details->>'from' = ${String(year)} and messages.details->>'subject' = payments.currency) as "sentAt"
        from receipts
          join payments on payments.business_id = receipts.business_id and payments.id = receipts.payment_id and payments.state = 'paid'
          join customers on customers.business_id = payments.business_id and customers.id = payments.customer_id
        where receipts.business_id = ${db.businessId} and receipts.printed->'order'->>'donation' = 'true'
          and left(receipts.printed->>'paidOn', 4) = ${String(year)}
          and payments.refunded_minor < payments.amount_minor + payments.tip_minor
        group by customers.business_id, customers.id, payments.currency
        order by lower(customers.name), customers.id, payments.currency`,
  );

/** A customer's gifts that were not given back whole, oldest first, each with its currency. */
export const giftsOf = (db: Db, customerId: string): Promise<(Gift & { currency: string })[]> =>
  many(
    db,
    sql`select receipts.printed->>'paidOn' as "on", receipts.number as receipt, receipts.printed->'order'->>'title' as what,
          payments.currency, (payments.amount_minor + payments.tip_minor - payments.refunded_minor)::bigint as minor
        from payments
          join receipts on receipts.business_id = payments.business_id and receipts.payment_id = payments.id
        where payments.business_id = ${db.businessId} and payments.customer_id = ${customerId} and payments.state = 'paid'
          and receipts.printed->'order'->>'donation' = 'true'
          and payments.refunded_minor < payments.amount_minor + payments.tip_minor
        order by payments.settled_at, payments.id`,
  );

import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Db, Tx } from './pool';
import { many, maybeOne, records, run, sql } from './sql';

/** Somebody who gets a share of payments. */
export type Partner = { readonly id: string; readonly name: string; readonly email: string };

/** What a partner has been given in one currency, fees and what refunds took back already off; minor units. */
export type PartnerSum = { readonly currency: string; readonly payments: number; readonly earnedMinor: number };

export type PartnerRow = Partner & { readonly sums: readonly PartnerSum[] };

/** The partners by name, with what each has earned. */
export const partnerRows = (db: Db): Promise<PartnerRow[]> =>
  many(
    db,
    sql`select id, name, email, coalesce((
          select jsonb_agg(one) from (
            select currency, count(*) filter (where kind = 'share')::int as payments, sum(minor)::bigint as "earnedMinor"
            from partner_movements m
            where m.business_id = partners.business_id and m.partner_id = partners.id and kind not in ('by-hand', 'came-back')
            group by currency order by currency) as one), '[]') as sums
        from partners where business_id = ${db.businessId} and not archived order by lower(name), id`,
  );

export const partnerById = (db: Db, id: string): Promise<Partner | null> =>
  maybeOne(db, sql`select id, name, email from partners where business_id = ${db.businessId} and id = ${id}`);

export const keepPartner = (tx: Tx, partner: Partner): Promise<number> =>
  run(
    tx,
    sql`insert into partners (id, business_id, name, email, created_at)
        values (${partner.id}, ${tx.businessId}, ${partner.name}, ${partner.email}, ${tx.now})
        on conflict (business_id, id) do update set name = excluded.name, email = excluded.email
        where partners.business_id = ${tx.businessId}`,
  );

export const archivePartner = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update partners set archived = true where business_id = ${tx.businessId} and id = ${id} and not archived`,
  );

/** What one partner gets of a payment; minor units. */
export type PaymentShare = {
  readonly position: number;
  readonly partnerId: string;
  readonly shareMinor: bigint;
  readonly feeMinor: bigint;
  readonly reversedMinor: bigint;
  readonly name: string;
};

export type NewShare = Omit<PaymentShare, 'name' | 'reversedMinor'> & { readonly paymentId: string };

/** Writes down who gets what of payments, and that they are owed it from now on. */
export async function insertShares(tx: Tx, shares: readonly NewShare[]): Promise<number> {
  if (shares.length === 0) return 0;
  return run(
    tx,
    sql`with kept as (
          insert into payment_shares (business_id, payment_id, position, partner_id, share_minor, fee_minor)
          select ${tx.businessId}, "paymentId", position, "partnerId", "shareMinor", "feeMinor"
          from jsonb_to_recordset(${records(shares)}::jsonb) as given ("paymentId" uuid, position smallint, "partnerId" uuid,
            "shareMinor" bigint, "feeMinor" bigint)
          returning payment_id, partner_id, share_minor - fee_minor as minor
        )
        insert into partner_movements (business_id, id, partner_id, payment_id, kind, currency, minor, at)
        select ${tx.businessId}, gen_random_uuid(), partner_id, payment_id, 'share', currency, minor, ${tx.now}
        from kept join payments on payments.business_id = ${tx.businessId} and payments.id = payment_id`,
  );
}

export const sharesOf = (db: Db, paymentId: string): Promise<PaymentShare[]> =>
  many(
    db,
    sql`select s.position, s.partner_id as "partnerId", s.share_minor as "shareMinor", s.fee_minor as "feeMinor",
          s.reversed_minor as "reversedMinor", partners.name
        from payment_shares s join partners on partners.business_id = s.business_id and partners.id = s.partner_id
        where s.business_id = ${db.businessId} and s.payment_id = ${paymentId} order by s.position`,
  );

/**
 * Takes back more of a partner's share: they are owed that much less from now on.
 *
 * @param feeBackMinor what they get back of the fee that they bore, where that is given back too
 */
export const updateReversed = (
  tx: Tx,
  paymentId: string,
  position: number,
  { moreMinor, feeBackMinor }: { readonly moreMinor: bigint; readonly feeBackMinor: bigint },
): Promise<number> =>
  run(
    tx,
    sql`with kept as (
          update payment_shares set reversed_minor = reversed_minor + ${moreMinor}
          where business_id = ${tx.businessId} and payment_id = ${paymentId} and position = ${position}
          returning partner_id
        )
        insert into partner_movements (business_id, id, partner_id, payment_id, kind, currency, minor, at)
        select ${tx.businessId}, gen_random_uuid(), partner_id, ${paymentId}, 'reversal', currency, ${feeBackMinor - moreMinor}, ${tx.now}
        from kept join payments on payments.business_id = ${tx.businessId} and payments.id = ${paymentId}`,
  );

/** A share of a payment with what it was of; `minor` is what is left of it after the fee and what was refunded. */
export type SharedPayment = {
  readonly paymentId: string;
  readonly partner: string;
  readonly payer: string;
  readonly at: Date;
  readonly currency: string;
  readonly minor: bigint;
};

/** The latest payments that were shared, a row a partner. */
export const latestShares = (db: Db, limit: number): Promise<SharedPayment[]> =>
  many(
    db,
    sql`select p.id as "paymentId", partners.name as partner, coalesce(customers.name, orders.printed->'payer'->>'name', '') as payer,
          p.settled_at as at, p.currency, (s.share_minor - s.fee_minor - s.reversed_minor)::bigint as minor
        from payment_shares s join payments p on p.business_id = s.business_id and p.id = s.payment_id
          join partners on partners.business_id = s.business_id and partners.id = s.partner_id
          left join customers on customers.business_id = p.business_id and customers.id = p.customer_id
          left join orders on orders.business_id = p.business_id and orders.id = p.order_id
        where s.business_id = ${db.businessId} and p.state = 'paid'
        order by p.settled_at desc, p.id, s.position limit ${limit}`,
  );

/** Partners with an address who are to get the statement of a month: something moved, or arrived, and they did not get it yet. */
export const partnersToState = (db: Db, from: CalendarDate, to: CalendarDate): Promise<Partner[]> =>
  many(
    db,
    sql`select partners.id, partners.name, partners.email from partners join businesses using (business_id)
        where partners.business_id = ${db.businessId} and partners.email <> '' and (statements_to is null or statements_to < ${to})
          and (exists (select from partner_movements m where m.business_id = partners.business_id and m.partner_id = partners.id
                 and (m.at at time zone zone)::date between ${from} and ${to})
            or exists (select from payouts p where p.business_id = partners.business_id and p.partner_id = partners.id
                 and p.state = 'arrived' and p.settled_on between ${from} and ${to}))
        order by partners.id`,
  );

export const updateStatementsTo = (tx: Tx, ids: readonly string[], to: CalendarDate): Promise<number> =>
  run(
    tx,
    sql`update partners set statements_to = ${to} where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[])`,
  );

/** How long things are kept, who is forgotten, and what is still open of a customer or of the business. */
import type { CalendarDate } from '@/core/dates/calendar-date';
import { UNDECIDED } from '@/core/dispute/dispute';
import { OPEN_STATUSES } from '@/core/invoice/state';
import type { Edges, KeepingRule } from '@/core/keeping/keeping';
import type { OpenThings } from '@/core/keeping/open-things';
import type { Db, Tx } from './pool';
import { many, NONE, one, oneOf, run, type Statement, sql } from './sql';

/** What a business decided on keeping, and how far closing it has come. */
export type KeepingState = {
  readonly kept: Partial<KeepingRule>;
  readonly takenAlongAt: Date | null;
  readonly closedAt: Date | null;
  /** The day on which it is erased; null while it is open. */
  readonly eraseOn: CalendarDate | null;
};

export const keepingState = (db: Db): Promise<KeepingState> =>
  one(
    db,
    sql`select keeping as kept, taken_along_at as "takenAlongAt", closed_at as "closedAt", erase_on as "eraseOn"
        from businesses where business_id = ${db.businessId}`,
  );

export const updateKeeping = (tx: Tx, rule: KeepingRule): Promise<number> =>
  run(tx, sql`update businesses set keeping = ${JSON.stringify(rule)} where business_id = ${tx.businessId}`);

export const noteTakenAlong = (tx: Tx): Promise<number> =>
  run(tx, sql`update businesses set taken_along_at = ${tx.now} where business_id = ${tx.businessId}`);

/** Closes it, to be erased on a day; null opens it again. */
export const updateClosed = (tx: Tx, on: CalendarDate | null): Promise<number> =>
  run(
    tx,
    sql`update businesses set closed_at = ${on ? tx.now : null}, erase_on = ${on} where business_id = ${tx.businessId}`,
  );

/** Ends what would go on by itself in a business that is closed: what is offered, asked for, invited to and told. */
export async function endOwnDoings(tx: Tx): Promise<void> {
  for (const statement of [
    sql`update offers set state = 'closed', changed_at = ${tx.now} where business_id = ${tx.businessId} and state <> 'closed'`,
    sql`update requests set state = 'withdrawn', ended_at = ${tx.now} where business_id = ${tx.businessId} and state in ('sent', 'seen')`,
    sql`update invoices set send_at = null, send_with = null where business_id = ${tx.businessId} and stage = 'draft' and send_at is not null`,
    sql`update hooks set state = 'off' where business_id = ${tx.businessId} and state = 'on'`,
    sql`update invitations set state = 'withdrawn' where business_id = ${tx.businessId} and state = 'open'`,
    sql`update businesses set feed_version = feed_version + 1 where business_id = ${tx.businessId}`,
  ])
    await run(tx, statement);
}

/** How many of each are open: of a customer and of those merged into them, or of the whole business. Money by its currencies. */
export async function openCounts(db: Db, customerId: string | null): Promise<OpenThings> {
  const mine = sql`business_id = ${db.businessId}`;
  const theirs = customerId
    ? sql`and customer_id in (select id from customers where ${mine} and (id = ${customerId} or merged_into = ${customerId}))`
    : NONE;
  const payments: Statement = sql`(select id from payments where ${mine} ${theirs})`;
  const vouchers = customerId ? sql`and order_id in (select id from orders where ${mine} ${theirs})` : NONE;
  return one(
    db,
    sql`select
      (select count(*)::int from invoices where ${mine} ${theirs} and status in ${oneOf(OPEN_STATUSES)}) as invoices,
      (select count(*)::int from plans where ${mine} ${theirs} and state in ('waiting', 'active', 'paused')) as plans,
      (select count(*)::int from recurring_invoices where ${mine} ${theirs} and state <> 'finished') as recurring,
      ((select count(*) from payments where ${mine} and id in ${payments} and state = 'pending')
        + (select count(*) from refunds where ${mine} and payment_id in ${payments} and state = 'pending'))::int as "underWay",
      (select count(*)::int from disputes where ${mine} and payment_id in ${payments} and state in ${oneOf(UNDECIDED)}) as disputes,
      ((select count(*) from handovers where ${mine} ${theirs} and state = 'open')
        + (select count(*) from parcels where ${mine} ${theirs} and state in ('packing', 'buying', 'bought', 'moving', 'door', 'waiting', 'damaged', 'back')))::int as parcels,
      (select count(distinct currency)::int from invoices where ${mine} ${theirs} and stage = 'sent'
        and total_minor - credited_minor - paid_minor + refunded_minor < 0) as credit,
      (select count(*)::int from vouchers where ${mine} ${vouchers} and sent_at is null and balance_minor > 0) as "vouchersToSend",
      (select count(*)::int from vouchers where ${mine} ${vouchers} and balance_minor > 0) as "vouchersOwed",
      ${
        customerId
          ? sql`0`
          : sql`(select count(distinct currency)::int from (select account, currency from ledger_postings where ${mine}
              and account in ('processor-clearing', 'on-the-way', 'partners', 'disputed') group by account, currency
              having sum(amount_minor) <> 0) as left_there)`
      } as "notPaidOut"`,
  );
}

/** Blanks a customer everywhere but on papers that are kept. @param word what stands where the name stood */
export const forgetCustomer = (tx: Tx, id: string, word: string): Promise<number> =>
  run(tx, sql`select forget_customer(${id}, ${word}, ${tx.now})`);

/** Blanks the papers of somebody forgotten that are of before a day; true where later ones are left. */
export async function forgetPapers(tx: Tx, id: string, before: CalendarDate, word: string): Promise<boolean> {
  const row = await one<{ left: boolean }>(tx, sql`select forget_papers(${id}, ${before}, ${word}, ${tx.now}) as left`);
  return row.left;
}

/** Clears away what nobody needs after its time. */
export const forgetOld = (tx: Tx, { checkouts, mails, programs, pictures }: Edges, word: string): Promise<number> =>
  run(tx, sql`select forget_old(${checkouts}, ${mails}, ${programs}, ${pictures}, ${word})`);

/** Customers who are forgotten and whose papers are not, those who were merged into others left out. */
export const customersWithPapers = (db: Db): Promise<{ readonly id: string }[]> =>
  many(
    db,
    sql`select id from customers where business_id = ${db.businessId} and erased_at is not null and papers_gone_at is null
          and merged_into is null order by id`,
  );

/** When somebody was forgotten; null for who was not, or is nobody here. */
export async function erasedAt(db: Db, id: string): Promise<Date | null> {
  const rows = await many<{ at: Date | null }>(
    db,
    sql`select erased_at as at from customers where business_id = ${db.businessId} and id = ${id}`,
  );
  return rows[0]?.at ?? null;
}

/** The last day that any paper of a customer is of; null without any. */
export async function lastPaperOn(db: Db, id: string): Promise<CalendarDate | null> {
  const row = await one<{ on: CalendarDate | null }>(
    db,
    sql`with t as (select * from customers_things(${id}))
        select greatest(
          (select max(issued_on) from invoices, t where business_id = ${db.businessId} and invoices.id = any (t.invoice_ids)),
          (select max(issued_on) from credit_notes, t where business_id = ${db.businessId} and credit_notes.invoice_id = any (t.invoice_ids)),
          (select max(coalesce(settled_at, started_at))::date from payments, t where business_id = ${db.businessId} and payments.id = any (t.payment_ids))) as "on"`,
  );
  return row.on;
}

/** Erases the business as a whole, where it was closed and its day has come; true where it did. */
export async function eraseBusiness(tx: Tx, today: CalendarDate): Promise<boolean> {
  const row = await one<{ erased: boolean }>(tx, sql`select erase_business(${today}) as erased`);
  return row.erased;
}

import type { Account, Entry } from '@/core/ledger/entry';
import { type Money, money } from '@/core/money/money';
import type { Db, Tx } from './pool';
import { many, run, sql } from './sql';

/**
 * Books an entry with its postings. The database itself refuses one that does not balance, and the same cause twice.
 *
 * @param booking `cause` names what is booked, once and for all: `payment:ID`
 */
export async function insertEntry(
  tx: Tx,
  businessId: string,
  entry: Entry,
  booking: { id: string; cause: string; invoiceId: string | null; orderId?: string | null; paymentId: string | null },
  at: Date,
): Promise<void> {
  await run(
    tx,
    sql`insert into ledger_entries (id, business_id, booked_on, words, cause, invoice_id, order_id, payment_id, booked_at)
        values (${booking.id}, ${businessId}, ${entry.on}, ${entry.words}, ${booking.cause}, ${booking.invoiceId},
          ${booking.orderId ?? null}, ${booking.paymentId}, ${at})`,
  );
  await run(
    tx,
    sql`insert into ledger_postings (business_id, entry_id, position, account, currency, amount_minor)
        select ${businessId}, ${booking.id}, position, account, currency, amount
        from unnest(${entry.postings.map((_, at) => at)}::smallint[], ${entry.postings.map((p) => p.account)}::text[],
          ${entry.postings.map((p) => p.amount.currency)}::text[], ${entry.postings.map((p) => p.amount.minor)}::bigint[])
          as posting (position, account, currency, amount)`,
  );
}

/** What an account holds in each currency; a debit balance is positive. */
export async function accountBalances(db: Db, businessId: string, account: Account): Promise<Money[]> {
  const rows = await many<{ minor: bigint; currency: string }>(
    db,
    sql`select sum(amount_minor)::bigint as minor, currency from ledger_postings
        where business_id = ${businessId} and account = ${account}
        group by currency order by currency`,
  );
  return rows.map((row) => money(row.minor, row.currency));
}

/** A disagreement in the books; none is the only good answer. */
export type LedgerTrouble = { readonly what: string; readonly subject: string; readonly off: bigint };

/**
 * Proves the books of one business: each currency sums to zero, each invoice's postings agree with what its row says
 * is due, and the sums by day agree with the rows that they sum.
 */
export const ledgerTroubles = (db: Db, businessId: string): Promise<LedgerTrouble[]> =>
  many(
    db,
    // Materialised: on tables that are not analysed yet the planner would work the sums out anew for every invoice.
    sql`with books as materialized (
          select invoice_id, sum(amount_minor) as posted from ledger_postings
          join ledger_entries on ledger_entries.business_id = ledger_postings.business_id and ledger_entries.id = entry_id
          where ledger_postings.business_id = ${businessId} and account = 'receivable' group by invoice_id
        ), card as materialized (
          select invoice_id, sum(amount_minor) as taken from payments
          where business_id = ${businessId} and state = 'paid' group by invoice_id
        )
        select 'ledger does not sum to zero' as what, currency as subject, sum(amount_minor)::bigint as off
          from ledger_postings where business_id = ${businessId} group by currency having sum(amount_minor) <> 0
        union all
        select 'invoice and receivable differ', number, (total_minor - credited_minor - paid_minor + refunded_minor - coalesce(posted, 0))::bigint
          from invoices left join books on books.invoice_id = invoices.id
          where business_id = ${businessId} and stage <> 'draft'
            and case when stage = 'sent' then total_minor - credited_minor - paid_minor + refunded_minor else 0 end <> coalesce(posted, 0)
        union all
        select 'invoice and its payments differ', number, (paid_minor - coalesce(taken, 0))::bigint
          from invoices left join card on card.invoice_id = invoices.id
          where business_id = ${businessId} and paid_minor <> coalesce(taken, 0)
        union all
        select 'due by day differs', coalesce(kept.due_on, counted.due_on)::text,
            (coalesce(kept.due_minor, 0) - coalesce(counted.due_minor, 0))::bigint
          from (
            select currency, due_on, sum(due_minor)::bigint as due_minor from invoice_sums
            where business_id = ${businessId} and standing in ('sent', 'seen', 'part') group by currency, due_on
          ) as kept
          full join (
            select currency, due_on, sum(due_minor)::bigint as due_minor from invoices
            where business_id = ${businessId} and stage = 'sent' and due_minor > 0 group by currency, due_on
          ) as counted using (currency, due_on)
          where coalesce(kept.due_minor, 0) <> coalesce(counted.due_minor, 0)`,
  );

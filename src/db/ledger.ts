import { UNDECIDED } from '@/core/dispute/dispute';
import { OPEN_STATUSES } from '@/core/invoice/state';
import type { Account, Entry } from '@/core/ledger/entry';
import { type Money, money } from '@/core/money/money';
import { AT_PROCESSOR } from '@/core/payment/methods';
import type { Db, Tx } from './pool';
import { many, oneOf, records, run, sql } from './sql';

/** What an entry belongs to; `cause` names what is booked, once and for all: `payment:ID`. */
export type Booking = {
  readonly id: string;
  readonly cause: string;
  readonly invoiceId: string | null;
  readonly orderId?: string | null;
  readonly paymentId: string | null;
};

/** Books entries with their postings. The database itself refuses one that does not balance, and the same cause twice. */
export async function insertEntries(
  tx: Tx,
  entries: readonly { readonly entry: Entry; readonly booking: Booking }[],
): Promise<void> {
  if (entries.length === 0) return;
  const heads = entries.map(({ entry, booking }) => ({
    ...booking,
    on: entry.on,
    words: entry.words,
    postings: entry.postings.length,
  }));
  await run(
    tx,
    sql`insert into ledger_entries (id, business_id, booked_on, words, cause, invoice_id, order_id, payment_id, booked_at, posting_count)
        select id, ${tx.businessId}, "on", words, cause, "invoiceId", "orderId", "paymentId", ${tx.now}, postings
        from jsonb_to_recordset(${records(heads)}::jsonb) as given (id uuid, "on" date, words text, cause text,
          "invoiceId" uuid, "orderId" uuid, "paymentId" uuid, postings smallint)`,
  );
  const postings = entries.flatMap(({ entry, booking }) =>
    entry.postings.map(({ account, amount }, position) => ({ entryId: booking.id, position, account, ...amount })),
  );
  await run(
    tx,
    sql`insert into ledger_postings (business_id, entry_id, position, account, currency, amount_minor)
        select ${tx.businessId}, "entryId", position, account, currency, minor
        from jsonb_to_recordset(${records(postings)}::jsonb)
          as given ("entryId" uuid, position smallint, account text, currency text, minor bigint)`,
  );
}

/** Books one entry. */
export const insertEntry = (tx: Tx, entry: Entry, booking: Booking): Promise<void> =>
  insertEntries(tx, [{ entry, booking }]);

/** What an account holds in each currency; a debit balance is positive. */
export async function accountBalances(db: Db, account: Account): Promise<Money[]> {
  const rows = await many<{ minor: bigint; currency: string }>(
    db,
    sql`select sum(amount_minor)::bigint as minor, currency from ledger_postings
        where business_id = ${db.businessId} and account = ${account}
        group by currency order by currency`,
  );
  return rows.map((row) => money(row.minor, row.currency));
}

/** A disagreement in the books; none is the only good answer. */
export type LedgerTrouble = { readonly what: string; readonly subject: string; readonly off: bigint };

/** What an account holds by currency, as a piece of a longer statement; a debit is positive. */
const balances = (db: Db, account: Account) => sql`select currency, sum(amount_minor) as minor from ledger_postings
  where business_id = ${db.businessId} and account = ${account} group by currency`;

/**
 * Proves the books of one business: each currency sums to zero, each invoice's postings agree with what its row says
 * is due, the sums by day agree with the rows that they sum, what the processor holds, what is on the way, what is disputed and what partners are
 * owed is what payments, refunds and payouts say, each payout is made of its days, and each line of the bank of its matches.
 */
export const ledgerTroubles = (db: Db): Promise<LedgerTrouble[]> =>
  many(
    db,
    // Materialised: on tables that are not analysed yet the planner would work the sums out anew for every invoice.
    sql`with books as materialized (
          select invoice_id, sum(amount_minor) as posted from ledger_postings
          join ledger_entries on ledger_entries.business_id = ledger_postings.business_id and ledger_entries.id = entry_id
          where ledger_postings.business_id = ${db.businessId} and account = 'receivable' group by invoice_id
        ), card as materialized (
          select invoice_id, sum(amount_minor) as taken from payments
          where business_id = ${db.businessId} and (state = 'paid' or (state = 'voided' and method = 'card')) group by invoice_id
        ), backs as materialized (
          select invoice_id, sum(refunds.amount_minor - refunds.tip_minor) as given from refunds
          join payments on payments.business_id = refunds.business_id and payments.id = refunds.payment_id
          where refunds.business_id = ${db.businessId} and refunds.state = 'done' group by invoice_id
        )
        select 'ledger does not sum to zero' as what, currency as subject, sum(amount_minor)::bigint as off
          from ledger_postings where business_id = ${db.businessId} group by currency having sum(amount_minor) <> 0
        union all
        select 'invoice and receivable differ', number, (total_minor - credited_minor - paid_minor + refunded_minor - coalesce(posted, 0))::bigint
          from invoices left join books on books.invoice_id = invoices.id
          where business_id = ${db.businessId} and stage <> 'draft'
            and case when stage = 'sent' then total_minor - credited_minor - paid_minor + refunded_minor else 0 end <> coalesce(posted, 0)
        union all
        select 'invoice and its payments differ', number, (paid_minor - coalesce(taken, 0))::bigint
          from invoices left join card on card.invoice_id = invoices.id
          where business_id = ${db.businessId} and paid_minor <> coalesce(taken, 0)
        union all
        select 'invoice and its refunds differ', number, (refunded_minor - coalesce(given, 0))::bigint
          from invoices left join backs on backs.invoice_id = invoices.id
          where business_id = ${db.businessId} and refunded_minor <> coalesce(given, 0)
        union all
        select 'register and its days differ', coalesce(kept.day, counted.day)::text, (coalesce(kept.minor, 0) - coalesce(counted.minor, 0))::bigint
          from (
            select currency, day, channel, method, sum(paid_minor - refunded_minor)::bigint as minor from register_sums
            where business_id = ${db.businessId} group by currency, day, channel, method
          ) as kept
          full join (
            select currency, day, channel, method, sum(minor)::bigint as minor from (
              select payments.currency, (settled_at at time zone zone)::date as day, channel, method, amount_minor + tip_minor as minor
              from payments join businesses using (business_id)
              where business_id = ${db.businessId} and (state = 'paid' or (state = 'voided' and method = 'card'))
              union all
              select payments.currency, (refunds.settled_at at time zone zone)::date, channel, refunds.method, -refunds.amount_minor
              from refunds join payments on payments.business_id = refunds.business_id and payments.id = refunds.payment_id
                join businesses on businesses.business_id = refunds.business_id
              where refunds.business_id = ${db.businessId} and refunds.state = 'done'
            ) as moved group by currency, day, channel, method
          ) as counted using (currency, day, channel, method)
          where coalesce(kept.minor, 0) <> coalesce(counted.minor, 0)
        union all
        select 'payouts on the way differ', coalesce(kept.currency, booked.currency), (coalesce(kept.minor, 0) - coalesce(booked.minor, 0))::bigint
          from (select currency, sum(amount_minor) as minor from payouts
            where business_id = ${db.businessId} and state in ('made', 'sent') group by currency) as kept
          full join (${balances(db, 'on-the-way')}) as booked using (currency)
          where coalesce(kept.minor, 0) <> coalesce(booked.minor, 0)
        union all
        select 'what the processor holds differs', coalesce(kept.currency, booked.currency), (coalesce(kept.minor, 0) - coalesce(booked.minor, 0))::bigint
          from (select currency, sum(minor) as minor from (
              select currency, amount_minor + tip_minor - fee_minor as minor from payments
              where business_id = ${db.businessId} and method in ${oneOf(AT_PROCESSOR)} and state in ('paid', 'voided')
              union all
              select payments.currency, case when kind = 'void' then payments.fee_minor else -refunds.fee_minor end - refunds.amount_minor
              from refunds join payments on payments.business_id = refunds.business_id and payments.id = refunds.payment_id
              where refunds.business_id = ${db.businessId} and refunds.state = 'done' and refunds.method in ${oneOf(AT_PROCESSOR)}
              union all
              select currency, case when state = 'won' then fee_back_minor - fee_minor else -amount_minor - fee_minor end from disputes
              where business_id = ${db.businessId}
              union all
              select currency, -amount_minor from payouts
              where business_id = ${db.businessId} and state in ('made', 'sent', 'arrived')
            ) as moved group by currency) as kept
          full join (${balances(db, 'processor-clearing')}) as booked using (currency)
          where coalesce(kept.minor, 0) <> coalesce(booked.minor, 0)
        union all
        select 'what is disputed differs', coalesce(kept.currency, booked.currency), (coalesce(kept.minor, 0) - coalesce(booked.minor, 0))::bigint
          from (select currency, sum(amount_minor) as minor from disputes
            where business_id = ${db.businessId} and state in ${oneOf(UNDECIDED)} group by currency) as kept
          full join (${balances(db, 'disputed')}) as booked using (currency)
          where coalesce(kept.minor, 0) <> coalesce(booked.minor, 0)
        union all
        select 'what vouchers are worth differs', coalesce(kept.currency, booked.currency), (coalesce(kept.minor, 0) + coalesce(booked.minor, 0))::bigint
          from (select currency, sum(m.minor) as minor from vouchers v join voucher_moves m on m.business_id = v.business_id and m.voucher_id = v.id
              left join refunds r on r.business_id = m.business_id and r.id = m.refund_id and m.kind = 'refunded'
            -- What a refund takes off is booked once the money is back.
            where v.business_id = ${db.businessId} and r.state is distinct from 'pending' group by currency) as kept
          full join (${balances(db, 'vouchers')}) as booked using (currency)
          where coalesce(kept.minor, 0) + coalesce(booked.minor, 0) <> 0
        union all
        select 'voucher and its movements differ', v.code, (v.balance_minor - coalesce(sum(m.minor), 0))::bigint
          from vouchers v left join voucher_moves m on m.business_id = v.business_id and m.voucher_id = v.id
          where v.business_id = ${db.businessId} group by v.business_id, v.id, v.code, v.balance_minor
          having v.balance_minor <> coalesce(sum(m.minor), 0)
        union all
        select 'what partners are owed differs', coalesce(kept.currency, booked.currency), (coalesce(kept.minor, 0) + coalesce(booked.minor, 0))::bigint
          from (select currency, sum(minor) as minor from (
              select currency, minor from partner_movements where business_id = ${db.businessId} and kind <> 'came-back'
              union all
              select currency, -amount_minor from payouts
              where business_id = ${db.businessId} and state = 'arrived' and partner_id is not null
            ) as moved group by currency) as kept
          full join (${balances(db, 'partners')}) as booked using (currency)
          where coalesce(kept.minor, 0) + coalesce(booked.minor, 0) <> 0
        union all
        select 'payout and its days differ', number::text, (amount_minor - coalesce(days.minor, 0))::bigint
          from payouts left join (
            select id, sum(minor) as minor from (
              select payout_id as id, net_minor - held_minor as minor from payout_days where business_id = ${db.businessId}
              union all
              select release_payout_id, held_minor from payout_days where business_id = ${db.businessId}
            ) as counted group by id
          ) as days using (id)
          where business_id = ${db.businessId} and amount_minor <> coalesce(days.minor, 0)
        union all
        select 'line of the bank and its matches differ', l.day::text, (l.amount_minor - coalesce(sum(m.amount_minor), 0))::bigint
          from bank_lines l left join bank_matches m on m.business_id = l.business_id and m.line_id = l.id and undone_at is null
          where l.business_id = ${db.businessId}
          group by l.id, l.day, l.amount_minor, l.state
          having case when l.state = 'matched' then l.amount_minor <> coalesce(sum(m.amount_minor), 0)
            else abs(coalesce(sum(m.amount_minor), 0)) >= abs(l.amount_minor) end
        union all
        select 'due by day differs', coalesce(kept.due_on, counted.due_on)::text,
            (coalesce(kept.due_minor, 0) - coalesce(counted.due_minor, 0))::bigint
          from (
            select currency, due_on, sum(due_minor)::bigint as due_minor from invoice_sums
            where business_id = ${db.businessId} and status in ${oneOf(OPEN_STATUSES)} group by currency, due_on
          ) as kept
          full join (
            select currency, due_on, sum(due_minor)::bigint as due_minor from invoices
            where business_id = ${db.businessId} and stage = 'sent' and due_minor > 0 group by currency, due_on
          ) as counted using (currency, due_on)
          where coalesce(kept.due_minor, 0) <> coalesce(counted.due_minor, 0)`,
  );

/** What entries with these causes put on an account, by currency; a debit is positive, minor units. */
export const postedOn = (
  db: Db,
  account: Account,
  causes: readonly string[],
): Promise<{ currency: string; minor: bigint }[]> =>
  many(
    db,
    sql`select currency, sum(amount_minor)::bigint as minor
        from ledger_entries join ledger_postings on ledger_postings.business_id = ledger_entries.business_id
          and ledger_postings.entry_id = ledger_entries.id
        where ledger_entries.business_id = ${db.businessId} and cause = any(${[...causes]}::text[]) and account = ${account}
        group by currency`,
  );

/** All that is kept of one customer, as rows to be taken along. */
import type { Db } from './pool';
import { joined, many, maybeOne, NONE, type Statement, sql } from './sql';

type Part = {
  readonly called: string;
  readonly rows: Statement;
  /** Columns that are keys of the house, or secrets, and no word about anybody. */
  readonly without?: readonly string[];
  /** What the business writes for itself: along with what the desk takes, not with what customers fetch themselves. */
  readonly inside?: readonly string[];
};

const TOKENS = ['link_token', 'token', 'revision'];

/** By table; `t` has the ids of what is theirs. What papers say stands in `printed`, sums in minor units of the currency beside them. */
const PARTS: readonly Part[] = [
  {
    called: 'customer',
    rows: sql`customers x where x.id = any (t.customer_ids)`,
    without: ['search', 'name_key'],
    inside: ['note', 'groups'],
  },
  {
    called: 'invoices',
    rows: sql`invoices x where x.id = any (t.invoice_ids) and x.stage <> 'draft'`,
    without: [...TOKENS, 'paper', 'send_with', 'send_by', 'kept_by'],
  },
  { called: 'earlier-versions', rows: sql`invoice_versions x where x.invoice_id = any (t.invoice_ids)` },
  {
    called: 'credit-notes',
    rows: sql`credit_notes x where x.invoice_id = any (t.invoice_ids)`,
    without: ['request_key', 'step'],
  },
  { called: 'questions', rows: sql`questions x where x.invoice_id = any (t.invoice_ids)` },
  { called: 'approvals', rows: sql`approvals x where x.invoice_id = any (t.invoice_ids)` },
  {
    called: 'orders',
    rows: sql`orders x where x.id = any (t.order_ids)`,
    without: [...TOKENS, 'definition', 'checkout_key', 'kept'],
  },
  {
    called: 'parcels',
    rows: sql`parcels x where x.customer_id = any (t.customer_ids)`,
    without: [
      'search',
      'rates',
      'checked',
      'rate_minor',
      'insurance_minor',
      'packaging_minor',
      'paid_minor',
      'trouble',
      'act_at',
      'look_at',
      'profile_id',
    ],
  },
  {
    called: 'parcel-scans',
    rows: sql`parcel_scans x where x.parcel_id in (select p.id from parcels p where p.business_id = x.business_id and p.customer_id = any (t.customer_ids))`,
  },
  { called: 'requests', rows: sql`requests x where x.id = any (t.request_ids)` },
  {
    called: 'payments',
    rows: sql`payments x where x.id = any (t.payment_ids)`,
    without: ['attempt_key', 'sale_id', 'approval_url', 'fee_minor', 'agreed_fee_minor', 'exclusive', 'at'],
  },
  {
    called: 'refunds',
    rows: sql`refunds x where x.payment_id = any (t.payment_ids)`,
    without: ['request_key', 'step', 'wish', 'fee_minor', 'at'],
  },
  {
    called: 'receipts',
    rows: sql`receipts x where x.payment_id = any (t.payment_ids)`,
  },
  {
    called: 'disputes',
    rows: sql`disputes x where x.payment_id = any (t.payment_ids)`,
    without: ['key', 'partners', 'fee_minor', 'fee_back_minor', 'left_out'],
    inside: ['words', 'files'],
  },
  {
    called: 'plans',
    rows: sql`plans x where x.id = any (t.plan_ids)`,
    without: [...TOKENS, 'by_id'],
    inside: ['memo'],
  },
  {
    called: 'charges',
    rows: sql`charges x where x.plan_id = any (t.plan_ids)`,
    without: ['attempts', 'tried', 'act_at'],
  },
  {
    called: 'recurring-invoices',
    rows: sql`recurring_invoices x where x.customer_id = any (t.customer_ids)`,
    without: ['by_id', 'paper'],
  },
  {
    called: 'cards-and-accounts',
    rows: sql`cards x where x.customer_id = any (t.customer_ids)`,
    without: ['kept_id', 'fingerprint', 'asked_for'],
  },
  { called: 'authorisations', rows: sql`authorisations x where x.customer_id = any (t.customer_ids)` },
  {
    called: 'vouchers',
    rows: sql`vouchers x where x.order_id = any (t.order_ids) or lower(x.to_email) = any (t.mails)`,
    without: ['code'],
  },
  {
    called: 'messages',
    rows: sql`messages x where lower(x.to_address) = any (t.mails) or x.customer_id = any (t.customer_ids)
      and x.kind not in ('payment-notice', 'order-notice', 'question', 'notice', 'dispute', 'plan-over')`,
    without: ['message_key', 'seen_to_at'],
  },
  {
    called: 'what-happened',
    rows: sql`timeline x where x.invoice_id = any (t.invoice_ids) or x.order_id = any (t.order_ids) or x.plan_id = any (t.plan_ids)`,
  },
  {
    called: 'bank-lines',
    rows: sql`bank_lines x where x.id in (select m.line_id from bank_matches m where m.undone_at is null
      and (m.invoice_id = any (t.invoice_ids) or m.payment_id = any (t.payment_ids)))`,
    without: ['key', 'position'],
  },
];

export type TakenPart = { readonly name: string; readonly rows: readonly object[] };

/** All that is kept of a customer, table by table. @param inside whether what the business writes for itself is among it */
export async function customerData(db: Db, id: string, inside: boolean): Promise<TakenPart[]> {
  const rows = await many<{ name: string; rows: object[] }>(
    db,
    sql`with t as materialized (select * from customers_things(${id})) ${joined(
      PARTS.map(({ called, rows: from, without = [], inside: own = [] }) => {
        const hidden = ['business_id', ...without, ...(inside ? [] : own)];
        // Row security keeps to the business; the ids are its own.
        return sql`select ${called}::text as name, coalesce((select jsonb_agg(to_jsonb(x) - ${hidden}::text[] order by to_jsonb(x) ->> 'id') from ${from}), '[]') as rows from t`;
      }),
      sql` union all `,
    )}`,
  );
  return rows;
}

/** A paper or a file: its id (a receipt's is its payment's), and what it is called. */
export type NamedPaper = { readonly id: string; readonly name: string };
export type Papers = {
  readonly invoices: readonly NamedPaper[];
  readonly credits: readonly NamedPaper[];
  readonly receipts: readonly NamedPaper[];
  readonly files: readonly NamedPaper[];
};

const NO_PAPERS: Papers = { invoices: [], credits: [], receipts: [], files: [] };

/** The papers and files for which these conditions hold, in the order in which they came to be. */
export async function papersWhere(
  db: Db,
  where: { readonly [Kind in keyof Papers]: Statement },
  given: Statement = NONE,
): Promise<Papers> {
  const named = (columns: Statement, from: Statement, condition: Statement, order: Statement) =>
    sql`coalesce((select jsonb_agg(jsonb_build_object('id', ${columns}) order by ${order}) from ${from}
      where x.business_id = ${db.businessId} and ${condition}), '[]')`;
  const row = await maybeOne<Papers>(
    db,
    sql`${given} select
        ${named(sql`x.id, 'name', x.number`, sql`invoices x`, sql`x.printed is not null and ${where.invoices}`, sql`x.issued_on, x.id`)} as invoices,
        ${named(sql`x.id, 'name', x.number`, sql`credit_notes x`, where.credits, sql`x.issued_on, x.id`)} as credits,
        ${named(sql`x.payment_id, 'name', x.number`, sql`receipts x`, where.receipts, sql`x.issued_at, x.id`)} as receipts,
        ${named(sql`x.id, 'name', x.name`, sql`files x`, sql`x.sha256 <> '' and ${where.files}`, sql`x.created_at, x.id`)} as files`,
  );
  return row ?? NO_PAPERS;
}

/** The papers and files of a customer. */
export const customerPapers = (db: Db, id: string): Promise<Papers> =>
  papersWhere(
    db,
    {
      invoices: sql`x.id = any ((select invoice_ids from t)::uuid[])`,
      credits: sql`x.invoice_id = any ((select invoice_ids from t)::uuid[])`,
      receipts: sql`x.payment_id = any ((select payment_ids from t)::uuid[])`,
      files: sql`x.id::text in (
        select a.file_id::text from authorisations a, t where a.customer_id = any (t.customer_ids)
        union all select e.value from t, orders o, jsonb_each_text(coalesce(o.choice -> 'answers', '{}')) e where o.id = any (t.order_ids)
        union all select g ->> 'id' from t, invoices i, jsonb_array_elements(coalesce(i.printed -> 'files', '[]')) g where i.id = any (t.invoice_ids))`,
    },
    sql`with t as materialized (select * from customers_things(${id}))`,
  );

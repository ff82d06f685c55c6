import { AT_PROCESSOR, type PaymentMethod } from '@/core/payment/methods';
import type { RefusalReason } from '@/core/payment/outcome';
import { type RegisterAsk, type RegisterSum, typedAmounts } from '@/core/register/ask';
import type { Channel, PaymentState } from './payments';
import type { Db } from './pool';
import { joined, likePattern, many, most, NONE, oneOf, type Statement, sql } from './sql';

/** A payment or a refund as the register shows it; `amountMinor` with the tip in it, minor units. */
export type RegisterRow = {
  readonly kind: 'payment' | 'refund';
  readonly id: string;
  readonly paymentId: string;
  readonly at: Date;
  readonly state: PaymentState | 'done';
  readonly amountMinor: bigint;
  readonly tipMinor: bigint;
  readonly feeMinor: bigint;
  readonly agreedFeeMinor: bigint | null;
  readonly refundedMinor: bigint;
  readonly dispute: 'open' | 'won' | 'lost' | null;
  /** Whether it is a debit that came back, or its coming back. */
  readonly cameBack: boolean;
  readonly currency: string;
  readonly method: PaymentMethod;
  readonly channel: Channel;
  readonly customer: string;
  readonly subject: string;
  readonly invoiceId: string | null;
  readonly offerId: string | null;
  readonly orderReference: string | null;
  readonly cardScheme: string | null;
  readonly cardLast4: string | null;
  readonly reference: string;
  readonly reason: RefusalReason | null;
  readonly receiptNumber: string | null;
  readonly creditNumber: string | null;
  /** Why it was given back. */
  readonly why: string;
};

export type RegisterCursor = { readonly key: string; readonly id: string };

/** The span that is asked for, as instants, its end not included. */
export type Span = { readonly from: Date | null; readonly to: Date | null };

/** How many customers, invoices and so on words may find before the rest is left out: whoever looks for more types on. */
const MOST_FOUND = 500;

const NOTHING = sql`false`;

/** What a payment has to be, whichever kind of row is asked for. */
function paymentWheres(businessId: string, ask: RegisterAsk): Statement[] {
  const wheres: Statement[] = [];
  if (ask.channel) wheres.push(sql`p.channel = ${ask.channel}`);
  if (ask.currency) wheres.push(sql`p.currency = ${ask.currency}`);
  if (ask.customerId) wheres.push(sql`p.customer_id = ${ask.customerId}::uuid`);
  if (ask.offerId)
    wheres.push(sql`(p.order_id in (select id from orders where business_id = ${businessId} and offer_id = ${ask.offerId}::uuid)
      or p.invoice_id in (select charges.invoice_id from charges
        join plans on plans.business_id = charges.business_id and plans.id = charges.plan_id
        join orders on orders.business_id = plans.business_id and orders.id = plans.order_id
        where charges.business_id = ${businessId} and orders.offer_id = ${ask.offerId}::uuid))`);
  if (ask.planId)
    wheres.push(sql`(p.invoice_id in (select invoice_id from charges where business_id = ${businessId} and plan_id = ${ask.planId}::uuid)
      or p.order_id in (select order_id from plans where business_id = ${businessId} and id = ${ask.planId}::uuid))`);
  if (ask.partnerId)
    wheres.push(
      sql`p.id in (select payment_id from payment_shares where business_id = ${businessId} and partner_id = ${ask.partnerId}::uuid)`,
    );
  if (ask.itemId) wheres.push(sql`p.id in (select payments_with_item(${ask.itemId}::uuid))`);
  if (ask.landed)
    wheres.push(sql`p.method in ${oneOf(AT_PROCESSOR)} and p.state = 'paid' and not exists (
      select from payout_days d join payouts on payouts.business_id = d.business_id and payouts.id = d.payout_id
        join businesses b on b.business_id = d.business_id
      where d.business_id = ${businessId} and d.payee = ${businessId} and d.currency = p.currency
        and d.day = (p.settled_at at time zone b.zone)::date and payouts.state = 'arrived')`);
  if (ask.fee) wheres.push(sql`p.fee_minor <> p.agreed_fee_minor and p.state = 'paid'`);
  const typed = ask.words.trim().toLowerCase();
  if (typed) {
    const [first = '%', second = '%', third = '%'] = typed.split(/\s+/).map(likePattern);
    const digits = /^\d{4}$/.test(typed) ? typed : null;
    wheres.push(sql`p.id in (select payments_matching(${first}, ${second}, ${third}, ${likePattern(typed)}, ${typed}, ${digits},
      ${typedAmounts(typed).map(String)}::bigint[], ${MOST_FOUND}))`);
  }
  return wheres;
}

const inSpan = (column: Statement, { from, to }: Span): Statement[] => [
  ...(from ? [sql`${column} >= ${from}`] : []),
  ...(to ? [sql`${column} < ${to}`] : []),
];

const REFUNDED_TO = {
  paid: sql`p.state = 'paid' and p.refunded_minor = 0`,
  'part-refunded': sql`p.state = 'paid' and not p.came_back and p.refunded_minor > 0 and p.refunded_minor < p.amount_minor + p.tip_minor`,
  refunded: sql`p.state = 'paid' and not p.came_back and p.refunded_minor > 0 and p.refunded_minor = p.amount_minor + p.tip_minor`,
  pending: sql`p.state = 'pending'`,
  refused: sql`p.state = 'refused'`,
  voided: sql`p.state = 'voided'`,
  disputed: sql`p.dispute = 'open'`,
  'dispute-lost': sql`p.dispute = 'lost'`,
  'came-back': sql`p.came_back`,
} as const;

const paymentsWhere = (businessId: string, ask: RegisterAsk, span: Span): Statement =>
  joined(
    [
      sql`p.business_id = ${businessId}`,
      ...paymentWheres(businessId, ask),
      ...inSpan(sql`p.at`, span),
      ...(ask.way ? [sql`p.method = ${ask.way}`] : []),
      ...(ask.state ? [REFUNDED_TO[ask.state]] : []),
      ...(ask.show === 'refunds' ? [NOTHING] : []),
    ],
    sql` and `,
  );

/** A refund is shown where its payment is asked for; by state only what is still asked about, or was refused. */
const refundsWhere = (businessId: string, ask: RegisterAsk, span: Span): Statement =>
  joined(
    [
      sql`r.business_id = ${businessId}`,
      ...paymentWheres(businessId, ask),
      ...inSpan(sql`r.at`, span),
      ...(ask.way ? [sql`r.method = ${ask.way}`] : []),
      ...(ask.state === 'pending' || ask.state === 'refused'
        ? [sql`r.state = ${ask.state}`]
        : ask.state
          ? [NOTHING]
          : []),
      // A refund has no fee of its own.
      ...(ask.show === 'payments' || ask.fee ? [NOTHING] : []),
    ],
    sql` and `,
  );

const REFUNDS = sql`refunds r join payments p on p.business_id = r.business_id and p.id = r.payment_id`;

/**
 * The statement of one page of the register, latest first, so that a test can read its plan. What stands beside a row is looked up for
 * each of the few rows of a page: joined, the planner would think longer about the order of eight tables than the page takes.
 */
export function registerPage(
  businessId: string,
  ask: RegisterAsk,
  span: Span,
  limit: number,
  after: RegisterCursor | null,
): Statement {
  const further = (at: Statement, id: Statement) =>
    after ? sql`and (${at}, ${id}) < (${after.key}::timestamptz, ${after.id}::uuid)` : NONE;
  return sql`with page as (
      (select 'payment' as kind, p.id, p.id as payment_id, p.at from payments p
       where ${paymentsWhere(businessId, ask, span)} ${further(sql`p.at`, sql`p.id`)} order by p.at desc, p.id desc limit ${most(limit)})
      union all
      (select 'refund', r.id, r.payment_id, r.at from ${REFUNDS}
       where ${refundsWhere(businessId, ask, span)} ${further(sql`r.at`, sql`r.id`)} order by r.at desc, r.id desc limit ${most(limit)})
      order by at desc, id desc limit ${most(limit)}
    )
    select page.kind, page.id, page.payment_id as "paymentId", page.at, coalesce(r.state, p.state) as state,
      coalesce(r.amount_minor, p.amount_minor + p.tip_minor) as "amountMinor", coalesce(r.tip_minor, p.tip_minor) as "tipMinor",
      case when r.id is null then p.fee_minor else r.fee_minor end as "feeMinor", p.agreed_fee_minor as "agreedFeeMinor",
      p.refunded_minor as "refundedMinor", p.dispute,
      case when r.id is null then p.came_back else r.kind = 'return' end as "cameBack", p.currency, coalesce(r.method, p.method) as method, p.channel,
      coalesce((select name from customers where business_id = ${businessId} and id = p.customer_id), o.payer, '') as customer,
      coalesce((select number from invoices where business_id = ${businessId} and id = p.invoice_id), o.offer, '') as subject,
      p.invoice_id as "invoiceId", o.offer_id as "offerId", o.reference as "orderReference",
      case when coalesce(r.method, p.method) in ${oneOf(AT_PROCESSOR)} then p.card_scheme end as "cardScheme",
      case when coalesce(r.method, p.method) in ${oneOf(AT_PROCESSOR)} then p.card_last4 end as "cardLast4",
      coalesce(r.reference, p.reference) as reference, case when r.id is null then p.reason end as reason,
      (select number from receipts where business_id = ${businessId} and payment_id = p.id) as "receiptNumber",
      (select number from credit_notes where business_id = ${businessId} and id = r.credit_id) as "creditNumber",
      coalesce(r.reason, '') as why
    from page
    join payments p on p.business_id = ${businessId} and p.id = page.payment_id
    left join lateral (select * from refunds where page.kind = 'refund' and business_id = ${businessId} and id = page.id limit 1) as r on true
    left join lateral (
      select orders.reference, orders.printed->'payer'->>'name' as payer, orders.offer_id, offers.name as offer
      from orders join offers on offers.business_id = orders.business_id and offers.id = orders.offer_id
      where orders.business_id = ${businessId} and orders.id = p.order_id limit 1) as o on true
    order by page.at desc, page.id desc`;
}

export const registerRows = (
  db: Db,
  ask: RegisterAsk,
  span: Span,
  limit: number,
  after: RegisterCursor | null,
): Promise<RegisterRow[]> => many(db, registerPage(db.businessId, ask, span, limit, after));

/** What is asked comes to, from what is kept by day. @param days ends included; empty for all */
export const keptSums = (db: Db, { channel, way, currency, show, from, to }: RegisterAsk): Promise<RegisterSum[]> =>
  many(
    db,
    sql`select * from (
          select currency, ${show === 'refunds' ? sql`0` : sql`sum(payments)::int`} as payments,
            ${show === 'refunds' ? sql`0::bigint` : sql`sum(paid_minor)::bigint`} as "paidMinor",
            ${show === 'payments' ? sql`0` : sql`sum(refunds)::int`} as refunds,
            ${show === 'payments' ? sql`0::bigint` : sql`sum(refunded_minor)::bigint`} as "refundedMinor"
          from register_sums where business_id = ${db.businessId} ${currency ? sql`and currency = ${currency}` : NONE}
            ${channel ? sql`and channel = ${channel}` : NONE} ${way ? sql`and method = ${way}` : NONE}
            ${from ? sql`and day >= ${from}::date` : NONE} ${to ? sql`and day <= ${to}::date` : NONE}
          group by currency
        ) as sums where payments + refunds > 0 order by currency`,
  );

/** The same counted row by row, for whatever is asked. */
export const countedSums = (db: Db, ask: RegisterAsk, span: Span): Promise<RegisterSum[]> =>
  many(
    db,
    sql`select currency, sum(payments)::int as payments, sum(paid)::bigint as "paidMinor", sum(refunds)::int as refunds,
          sum(refunded)::bigint as "refundedMinor"
        from (
          select p.currency, count(*) as payments, sum(p.amount_minor + p.tip_minor) as paid, 0 as refunds, 0 as refunded from payments p
          where ${paymentsWhere(db.businessId, ask, span)} and (p.state = 'paid' or (p.state = 'voided' and p.method = 'card'))
          group by p.currency
          union all
          select p.currency, 0, 0, count(*), sum(r.amount_minor) from ${REFUNDS}
          where ${refundsWhere(db.businessId, ask, span)} and r.state = 'done' group by p.currency
        ) as moved group by currency order by currency`,
  );

/** The currencies in which money has moved. */
export async function registerCurrencies(db: Db): Promise<string[]> {
  const rows = await many<{ currency: string }>(
    db,
    sql`select distinct currency from register_sums where business_id = ${db.businessId} order by currency`,
  );
  return rows.map(({ currency }) => currency);
}

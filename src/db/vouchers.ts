import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Spendable, VoucherRule } from '@/core/voucher/voucher';
import type { Db, Tx } from './pool';
import { many, maybeOne, NONE, one, records, run, sql } from './sql';

/** A gift voucher; minor units. `sendOn` is the day on which it goes out, null where nobody gets it by mail. */
export type Voucher = Spendable & {
  readonly id: string;
  readonly code: string;
  readonly orderId: string;
  readonly paymentId: string;
  readonly valueMinor: bigint;
  readonly balanceMinor: bigint;
  /** Stopped by the business itself. */
  readonly stopped: boolean;
  readonly soldAt: Date;
  readonly locale: string;
  readonly title: string;
  readonly toName: string;
  readonly toEmail: string;
  readonly fromName: string;
  readonly message: string;
  readonly sendOn: CalendarDate | null;
  readonly sentAt: Date | null;
};

const VOUCHER = sql`v.id, v.code, v.order_id as "orderId", v.payment_id as "paymentId", v.currency, v.value_minor as "valueMinor",
  v.balance_minor as "balanceMinor", v.blocked as stopped, v.sold_at as "soldAt", v.expires_on as "expiresOn", v.locale, v.title,
  v.to_name as "toName", v.to_email as "toEmail", v.from_name as "fromName", v.message, v.send_on as "sendOn", v.sent_at as "sentAt",
  v.balance_minor - coalesce((select sum(p.amount_minor + p.tip_minor) from payments p
    where p.business_id = v.business_id and p.voucher_id = v.id and p.state = 'pending'), 0)::bigint as "availableMinor",
  v.blocked or exists (select from payments p where p.business_id = v.business_id and p.id = v.payment_id
    and p.dispute in ('open', 'lost')) as blocked
  from vouchers v`;

export const voucherById = (db: Db, id: string): Promise<Voucher | null> =>
  maybeOne(db, sql`select ${VOUCHER} where v.business_id = ${db.businessId} and v.id = ${id}`);

/** The voucher with this code, as `voucherKey` reads it. */
export const voucherByCode = (db: Db, key: string): Promise<Voucher | null> =>
  maybeOne(db, sql`select ${VOUCHER} where v.business_id = ${db.businessId} and v.code = ${key}`);

/** Locks vouchers until the transaction ends, in one order everywhere; after it they are read as they are. */
export const lockVouchers = (tx: Tx, ids: readonly string[]): Promise<unknown> =>
  many(
    tx,
    sql`select id from vouchers where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[]) order by id for update`,
  );

/** What an order bought, in the order of its lines. */
export const vouchersOfOrder = (db: Db, orderId: string): Promise<Voucher[]> =>
  many(
    db,
    sql`select ${VOUCHER} where v.business_id = ${db.businessId} and v.order_id = ${orderId} order by v.sold_at, v.id`,
  );

/** Whether any voucher of the business can be used: else nobody is asked for one. */
export async function hasVouchers(db: Db): Promise<boolean> {
  const row = await one<{ any: boolean }>(
    db,
    sql`select exists (select from vouchers where business_id = ${db.businessId} and balance_minor > 0) as any`,
  );
  return row.any;
}

export type NewVoucher = Pick<
  Voucher,
  | 'id'
  | 'code'
  | 'orderId'
  | 'paymentId'
  | 'currency'
  | 'valueMinor'
  | 'expiresOn'
  | 'locale'
  | 'title'
  | 'toName'
  | 'toEmail'
  | 'fromName'
  | 'message'
  | 'sendOn'
>;

export const insertVouchers = (tx: Tx, vouchers: readonly NewVoucher[]): Promise<number> =>
  run(
    tx,
    sql`insert into vouchers (id, business_id, code, order_id, payment_id, currency, value_minor, balance_minor, sold_at, expires_on,
          locale, title, to_name, to_email, from_name, message, send_on)
        select id, ${tx.businessId}, code, "orderId", "paymentId", currency, "valueMinor", 0, ${tx.now}, "expiresOn", locale, title,
          "toName", "toEmail", "fromName", message, "sendOn"
        from jsonb_to_recordset(${records(vouchers)}::jsonb) as given (id uuid, code text, "orderId" uuid, "paymentId" uuid, currency text,
          "valueMinor" bigint, "expiresOn" date, locale text, title text, "toName" text, "toEmail" text, "fromName" text, message text,
          "sendOn" date)`,
  );

/** What moved on a voucher; minor units, below 0 what went off it. */
export type VoucherMove = {
  readonly voucherId: string;
  readonly kind: 'sold' | 'used' | 'given-back' | 'refunded' | 'not-refunded' | 'expired' | 'extended';
  readonly minor: bigint;
  readonly paymentId?: string | null;
  readonly refundId?: string | null;
};

/** Moves vouchers' balances, each move kept: the only way in which they change. */
export async function moveVouchers(tx: Tx, moves: readonly VoucherMove[], byName: string): Promise<void> {
  if (moves.length === 0) return;
  await run(
    tx,
    sql`with moved as (
          insert into voucher_moves (id, business_id, voucher_id, kind, minor, payment_id, refund_id, at, by_name)
          select gen_random_uuid(), ${tx.businessId}, "voucherId", kind, minor, "paymentId", "refundId", ${tx.now}, ${byName}
          from jsonb_to_recordset(${records(moves)}::jsonb) as given ("voucherId" uuid, kind text, minor bigint, "paymentId" uuid, "refundId" uuid)
          returning voucher_id, minor
        )
        update vouchers set balance_minor = balance_minor + summed.minor
        from (select voucher_id, sum(minor)::bigint as minor from moved group by voucher_id) as summed
        where vouchers.business_id = ${tx.businessId} and vouchers.id = summed.voucher_id`,
  );
}

/** What a refund of a sale took off vouchers, to be put back where the processor refuses it. */
export const takenByRefund = (db: Db, refundId: string): Promise<{ voucherId: string; minor: bigint }[]> =>
  many(
    db,
    sql`select voucher_id as "voucherId", sum(minor)::bigint as minor from voucher_moves
        where business_id = ${db.businessId} and refund_id = ${refundId} and kind in ('refunded', 'not-refunded')
        group by voucher_id order by voucher_id`,
  );

/** A move as its voucher's sheet tells it, with what it paid. */
export type ToldMove = VoucherMove & {
  readonly id: string;
  readonly at: Date;
  readonly byName: string;
  readonly invoiceId: string | null;
  /** The invoice's number or the order's reference; empty for none. */
  readonly about: string;
};

export const movesOf = (db: Db, voucherId: string): Promise<ToldMove[]> =>
  many(
    db,
    sql`select m.id, m.voucher_id as "voucherId", m.kind, m.minor, m.payment_id as "paymentId", m.refund_id as "refundId", m.at,
          m.by_name as "byName", p.invoice_id as "invoiceId", coalesce(i.number, o.reference, '') as about
        from voucher_moves m
          left join payments p on p.business_id = m.business_id and p.id = m.payment_id
          left join invoices i on i.business_id = m.business_id and i.id = p.invoice_id
          left join orders o on o.business_id = m.business_id and o.id = p.order_id
        where m.business_id = ${db.businessId} and m.voucher_id = ${voucherId} order by m.at, m.id`,
  );

/** Vouchers, latest first, a page; narrowed by words in their code, names and titles. */
export const voucherRows = (
  db: Db,
  { words, before, limit }: { readonly words: string; readonly before: Voucher | null; readonly limit: number },
): Promise<Voucher[]> => {
  const like = `%${words.toLowerCase().replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
  return many(
    db,
    sql`select ${VOUCHER} where v.business_id = ${db.businessId}
        ${words ? sql`and (v.code like ${like.toUpperCase().replace(/[\s-]/g, '')} or lower(v.to_name || ' ' || v.from_name || ' ' || v.to_email || ' ' || v.title) like ${like})` : NONE}
        ${before ? sql`and (v.sold_at, v.id) < (${before.soldAt}, ${before.id}::uuid)` : NONE}
        order by v.sold_at desc, v.id desc limit ${limit}`,
  );
};

/** What vouchers are still worth, what was used and what is over, by currency; minor units. */
export type VoucherSum = {
  readonly currency: string;
  readonly open: number;
  readonly openMinor: bigint;
  readonly soldMinor: bigint;
  readonly usedMinor: bigint;
  readonly expiredMinor: bigint;
};

export const voucherSums = (db: Db): Promise<VoucherSum[]> =>
  many(
    db,
    sql`select v.currency, count(distinct v.id) filter (where v.balance_minor > 0)::int as open,
          coalesce(sum(m.minor), 0)::bigint as "openMinor",
          coalesce(sum(m.minor) filter (where m.kind in ('sold', 'refunded', 'not-refunded')), 0)::bigint as "soldMinor",
          coalesce(-sum(m.minor) filter (where m.kind in ('used', 'given-back')), 0)::bigint as "usedMinor",
          coalesce(-sum(m.minor) filter (where m.kind in ('expired', 'extended')), 0)::bigint as "expiredMinor"
        from vouchers v left join voucher_moves m on m.business_id = v.business_id and m.voucher_id = v.id
        where v.business_id = ${db.businessId} group by v.currency order by v.currency`,
  );

export const updateStopped = (tx: Tx, id: string, stopped: boolean): Promise<number> =>
  run(tx, sql`update vouchers set blocked = ${stopped} where business_id = ${tx.businessId} and id = ${id}`);

export const updateExpiry = (tx: Tx, id: string, expiresOn: CalendarDate | null): Promise<number> =>
  run(tx, sql`update vouchers set expires_on = ${expiresOn} where business_id = ${tx.businessId} and id = ${id}`);

/** Takes orders whose vouchers are to go out by a day: each once, whoever else looks. */
export const takeToSend = (tx: Tx, today: CalendarDate, limit: number): Promise<{ orderId: string }[]> =>
  many(
    tx,
    sql`with due as (
          select business_id, id, order_id from vouchers
          where business_id = ${tx.businessId} and sent_at is null and send_on <= ${today}
          order by send_on, id limit ${limit} for update skip locked
        ), sent as (
          update vouchers set sent_at = ${tx.now} from due where vouchers.business_id = due.business_id and vouchers.id = due.id
          returning vouchers.order_id
        )
        select distinct order_id as "orderId" from sent order by order_id`,
  );

/** Vouchers that are over with something left on them and nothing of it held, locked. */
export const takeExpired = (
  tx: Tx,
  today: CalendarDate,
  limit: number,
): Promise<{ id: string; code: string; currency: string; balanceMinor: bigint }[]> =>
  many(
    tx,
    sql`select id, code, currency, balance_minor as "balanceMinor" from vouchers
        where business_id = ${tx.businessId} and expires_on < ${today} and balance_minor > 0
          and not exists (select from payments p where p.business_id = vouchers.business_id and p.voucher_id = vouchers.id and p.state = 'pending')
        order by expires_on, id limit ${limit} for update skip locked`,
  );

export async function voucherRule(db: Db): Promise<VoucherRule> {
  const row = await one<{ rule: VoucherRule }>(
    db,
    sql`select voucher_rule as rule from businesses where business_id = ${db.businessId}`,
  );
  return row.rule;
}

export const updateVoucherRule = (tx: Tx, rule: VoucherRule): Promise<number> =>
  run(tx, sql`update businesses set voucher_rule = ${JSON.stringify(rule)} where business_id = ${tx.businessId}`);

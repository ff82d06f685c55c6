import type { CalendarDate } from '@/core/dates/calendar-date';
import { jsonMinor } from '@/core/money/money';
import {
  type BatchBack,
  type BatchDifference,
  type BatchSale,
  type BatchSum,
  type ByHand,
  moveKey,
} from '@/core/payment/day-batch';
import { AT_PROCESSOR, WITHOUT_MONEY } from '@/core/payment/methods';
import { WENT_THROUGH } from '@/core/payment/outcome';
import type { Db, Tx } from './pool';
import { many, maybeOne, NONE, one, oneOf, run, sql } from './sql';

/** A closed day as it is kept. */
export type DayBatch = {
  readonly day: CalendarDate;
  readonly sums: readonly BatchSum[];
  readonly differences: readonly BatchDifference[];
  readonly checkedAt: Date;
  readonly settledBy: string | null;
  readonly settledWords: string;
};

/** Amounts go into JSON as safe integers. */
const written = (value: unknown): string =>
  JSON.stringify(value, (_, one) => (typeof one === 'bigint' ? jsonMinor(one) : one));

/** And come back as what they were: every field that is named so is an amount. */
const read = <T>(value: unknown): T =>
  JSON.parse(JSON.stringify(value), (name, one) => (name.endsWith('Minor') ? BigInt(one) : one)) as T;

const BATCH = sql`day, sums, differences, checked_at as "checkedAt", settled_by as "settledBy", settled_words as "settledWords"`;

/** Days that were closed before there were disputes say nothing of them. */
const NO_DISPUTES = { disputes: 0, disputedMinor: 0n, disputeFeesMinor: 0n };

const batchOf = (row: DayBatch): DayBatch => ({
  ...row,
  sums: read<BatchSum[]>(row.sums).map((sum) => ({ ...NO_DISPUTES, ...sum })),
  differences: read(row.differences),
});

export async function dayBatch(db: Db, day: CalendarDate): Promise<DayBatch | null> {
  const row = await maybeOne<DayBatch>(
    db,
    sql`select ${BATCH} from day_batches where business_id = ${db.businessId} and day = ${day}`,
  );
  return row && batchOf(row);
}

/** Closed days, latest first. */
export async function dayBatches(db: Db, limit: number, before: CalendarDate | null): Promise<DayBatch[]> {
  const rows = await many<DayBatch>(
    db,
    sql`select ${BATCH} from day_batches where business_id = ${db.businessId} ${before ? sql`and day < ${before}` : NONE}
        order by day desc limit ${limit}`,
  );
  return rows.map(batchOf);
}

/** Closed days on which the two books differ and nobody has looked into it, latest first. */
export async function differingBatches(db: Db, limit: number): Promise<DayBatch[]> {
  const rows = await many<DayBatch>(
    db,
    sql`select ${BATCH} from day_batches where business_id = ${db.businessId} and differences <> '[]' and settled_by is null
      order by day desc limit ${limit}`,
  );
  return rows.map(batchOf);
}

/** Writes a day down; compared again, what it was compared with is replaced and its sums stay. */
export const keepBatch = (
  tx: Tx,
  { day, sums, differences, checkedAt }: Pick<DayBatch, 'day' | 'sums' | 'differences' | 'checkedAt'>,
): Promise<number> =>
  run(
    tx,
    sql`insert into day_batches (business_id, day, sums, differences, checked_at)
        values (${tx.businessId}, ${day}, ${written(sums)}, ${written(differences)}, ${checkedAt})
        on conflict (business_id, day) do update set differences = excluded.differences, checked_at = excluded.checked_at`,
  );

export const settleBatch = (tx: Tx, day: CalendarDate, by: string, words: string): Promise<number> =>
  run(
    tx,
    sql`update day_batches set settled_by = ${by}, settled_words = ${words} where business_id = ${tx.businessId} and day = ${day}`,
  );

/** The day up to which all are closed; null where none is yet. */
export async function closedTo(db: Db): Promise<CalendarDate | null> {
  const row = await one<{ day: CalendarDate | null }>(
    db,
    sql`select batches_closed_to as day from businesses where business_id = ${db.businessId}`,
  );
  return row.day;
}

export const updateClosedTo = (tx: Tx, day: CalendarDate): Promise<number> =>
  run(tx, sql`update businesses set batches_closed_to = ${day} where business_id = ${tx.businessId}`);

/** When the first card payment went through; null where none has. */
export async function firstSaleAt(db: Db): Promise<Date | null> {
  const row = await one<{ at: Date | null }>(
    db,
    sql`select min(settled_at) as at from payments
        where business_id = ${db.businessId} and method in ${oneOf(AT_PROCESSOR)} and state in ${oneOf(WENT_THROUGH)} and sale_id is not null`,
  );
  return row.at;
}

/** Card sales that went through in a span, its end not included, in order of time. */
export const salesBetween = (db: Db, from: Date, to: Date): Promise<(BatchSale & { readonly at: Date })[]> =>
  many(
    db,
    sql`select id as "paymentId", channel, currency, amount_minor + tip_minor as "amountMinor", fee_minor as "feeMinor",
          state = 'voided' as voided, settled_at as at
        from payments where business_id = ${db.businessId} and method in ${oneOf(AT_PROCESSOR)} and state in ${oneOf(WENT_THROUGH)}
          and sale_id is not null and settled_at >= ${from} and settled_at < ${to}
        order by settled_at, id`,
  );

/** What was given back in a span, its end not included, in order of time; a void gives the sale's fee back, a debit that came back costs one. */
export const backsBetween = (db: Db, from: Date, to: Date): Promise<(BatchBack & { readonly at: Date })[]> =>
  many(
    db,
    sql`select refunds.id as "refundId", payment_id as "paymentId", kind, payments.currency, refunds.amount_minor as "amountMinor",
          case when kind = 'void' then payments.fee_minor else -refunds.fee_minor end as "feeBackMinor", refunds.settled_at as at
        from refunds join payments on payments.business_id = refunds.business_id and payments.id = refunds.payment_id
        where refunds.business_id = ${db.businessId} and refunds.state = 'done' and refunds.method in ${oneOf(AT_PROCESSOR)}
          and refunds.settled_at >= ${from} and refunds.settled_at < ${to}
        order by refunds.settled_at, refunds.id`,
  );

/** Which of these are payments that went through, or refunds that were done, on whatever day. */
export async function knownMovements(db: Db, ids: readonly string[]): Promise<Set<string>> {
  const rows = await many<{ id: string }>(
    db,
    sql`select id from payments where business_id = ${db.businessId} and id = any(${[...ids]}::uuid[]) and state in ${oneOf(WENT_THROUGH)}
        union all
        select id from refunds where business_id = ${db.businessId} and id = any(${[...ids]}::uuid[]) and state = 'done'`,
  );
  return new Set(rows.map(({ id }) => id));
}

/** What disputes of these payments moved, on whatever day, as `moveKey` names it. */
export async function knownDisputeMoves(db: Db, paymentIds: readonly string[]): Promise<string[]> {
  const rows = await many<{ key: string; isWon: boolean }>(
    db,
    sql`select key, state = 'won' as "isWon" from disputes where business_id = ${db.businessId} and payment_id = any(${[...paymentIds]}::uuid[])`,
  );
  return rows.flatMap(({ key, isWon }) => [moveKey('disputed', key), ...(isWon ? [moveKey('dispute-won', key)] : [])]);
}

/** Money that came or went another way than by card in a span, its end not included, in order of time; below 0 what went. */
export const byHandBetween = (db: Db, from: Date, to: Date): Promise<(ByHand & { readonly at: Date })[]> =>
  many(
    db,
    sql`select id as "paymentId", method, currency, amount_minor as "amountMinor", settled_at as at
        from payments where business_id = ${db.businessId} and method not in ${oneOf([...AT_PROCESSOR, ...WITHOUT_MONEY])} and method <> 'card' and state = 'paid'
          and settled_at >= ${from} and settled_at < ${to}
        union all
        select payment_id, refunds.method, payments.currency, -refunds.amount_minor, refunds.settled_at
        from refunds join payments on payments.business_id = refunds.business_id and payments.id = refunds.payment_id
        where refunds.business_id = ${db.businessId} and refunds.method not in ${oneOf([...AT_PROCESSOR, ...WITHOUT_MONEY])} and refunds.state = 'done'
          and refunds.settled_at >= ${from} and refunds.settled_at < ${to}
        order by at, "paymentId"`,
  );

/** When money first came another way than by card; null where none has. */
export async function firstByHandAt(db: Db): Promise<Date | null> {
  const row = await one<{ at: Date | null }>(
    db,
    sql`select min(settled_at) as at from payments where business_id = ${db.businessId} and method <> 'card' and method not in ${oneOf([...AT_PROCESSOR, ...WITHOUT_MONEY])} and state = 'paid'`,
  );
  return row.at;
}

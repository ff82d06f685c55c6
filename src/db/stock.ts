import { stockKey } from '@/core/item/item';
import type { Comeback } from '@/core/stock/comeback';
import type { Moved, Stock } from '@/core/stock/movement';
import type { OnTheWayOut } from '@/core/stock/shelf';
import type { LedgerTrouble } from './ledger';
import type { Db, Tx } from './pool';
import { likePattern, many, most, NONE, records, run, type Statement, sql } from './sql';

/** The last movement of a thing, as a join. */
const LAST = (itemId: Statement, optionId: Statement, db: Db) =>
  sql`left join lateral (select n, promised_after, average_after from stock_movements s
        where s.business_id = ${db.businessId} and s.item_id = ${itemId} and s.option_id is not distinct from ${optionId}
        order by s.n desc limit 1) as m on true`;

/** What stock is kept of: an item, or one of its options. */
export type StockThing = { readonly itemId: string; readonly optionId: string | null };

const THINGS = (things: readonly StockThing[]) =>
  sql`(select distinct "itemId", "optionId" from jsonb_to_recordset(${records(things)}::jsonb) as given ("itemId" uuid, "optionId" uuid)) as w`;

/** The stock of something; `n` is the place of its last movement. */
export type KeptStock = StockThing & Stock & { readonly n: number };

/**
 * Holds the stock of things: whoever moves the same item waits until this transaction ends. Items are always taken in the order of their
 * ids and before any sale that is handed over, so that two who take several never wait for each other.
 */
export const holdStock = (tx: Tx, things: readonly StockThing[]): Promise<number> =>
  run(
    tx,
    sql`select id from items where business_id = ${tx.businessId} and id = any(${things.map(({ itemId }) => itemId)}::uuid[])
        order by id for no key update`,
  );

/** The stock of things as it is now; what is no item's is left out. */
export const stockNow = (db: Db, things: readonly StockThing[]): Promise<KeptStock[]> =>
  many(
    db,
    sql`select w."itemId", w."optionId",
          trim_scale(case when w."optionId" is null then i.on_hand else o.on_hand end)::text as "onHand",
          coalesce(trim_scale(m.promised_after)::text, '0') as promised, coalesce(trim_scale(m.average_after)::text, '') as "averageCost",
          coalesce(m.n, 0) as n
        from ${THINGS(things)}
        join items i on i.business_id = ${db.businessId} and i.id = w."itemId"
        left join item_options o on o.business_id = i.business_id and o.item_id = i.id and o.id = w."optionId"
        ${LAST(sql`i.id`, sql`w."optionId"`, db)}
        where w."optionId" is null or o.id is not null
        order by w."itemId", w."optionId"`,
  );

/** A row of the log to be; `on_hand` and `average` after it stand in `moved`. */
export type NewMovement = StockThing & {
  readonly id: string;
  readonly n: number;
  readonly moved: Moved;
  readonly byName: string;
  readonly why: string;
  readonly supplier: string;
  readonly paper: string;
  readonly fileId: string | null;
  readonly invoiceId: string | null;
  readonly orderId: string | null;
};

/** Writes movements into the log, and what is on hand after the last of each thing beside it. */
export async function insertMovements(tx: Tx, movements: readonly NewMovement[]): Promise<void> {
  if (movements.length === 0) return;
  const rows = movements.map(({ moved: { kind, onHandBy, promisedBy, cost, after }, ...row }) => ({
    ...row,
    kind,
    onHandBy,
    promisedBy,
    cost: cost || null,
    onHand: after.onHand,
    promised: after.promised,
    average: after.averageCost || null,
  }));
  await run(
    tx,
    sql`insert into stock_movements (business_id, id, item_id, option_id, n, at, kind, on_hand_by, promised_by, on_hand_after, promised_after,
          cost, average_after, by_name, why, supplier, paper, file_id, invoice_id, order_id)
        select ${tx.businessId}, id, "itemId", "optionId", n, ${tx.now}, kind, "onHandBy", "promisedBy", "onHand", promised, cost, average,
          "byName", why, supplier, paper, "fileId", "invoiceId", "orderId"
        from jsonb_to_recordset(${records(rows)}::jsonb) as given (id uuid, "itemId" uuid, "optionId" uuid, n int, kind text,
          "onHandBy" numeric, "promisedBy" numeric, "onHand" numeric, promised numeric, cost numeric, average numeric, "byName" text, why text,
          supplier text, paper text, "fileId" uuid, "invoiceId" uuid, "orderId" uuid)`,
  );
  const last = [...new Map(rows.map((row) => [`${row.itemId}/${row.optionId}`, row])).values()];
  const ofItems = last.filter(({ optionId }) => optionId === null);
  const ofOptions = last.filter(({ optionId }) => optionId !== null);
  if (ofItems.length > 0)
    await run(
      tx,
      sql`update items set on_hand = given."onHand"
          from jsonb_to_recordset(${records(ofItems)}::jsonb) as given ("itemId" uuid, "onHand" numeric)
          where business_id = ${tx.businessId} and id = given."itemId"`,
    );
  if (ofOptions.length > 0)
    await run(
      tx,
      sql`update item_options set on_hand = given."onHand"
          from jsonb_to_recordset(${records(ofOptions)}::jsonb) as given ("optionId" uuid, "onHand" numeric)
          where business_id = ${tx.businessId} and id = given."optionId"`,
    );
}

/** Which of these movements are written already. */
export const movedOf = async (db: Db, ids: readonly string[]): Promise<Set<string>> =>
  new Set(
    (
      await many<{ id: string }>(
        db,
        sql`select id from stock_movements where business_id = ${db.businessId} and id = any(${[...ids]}::uuid[])`,
      )
    ).map(({ id }) => id),
  );

/** What sales have promised of a thing, whether its stock is kept or not. */
export const promisedNow = async (
  db: Db,
  things: readonly StockThing[],
): Promise<(StockThing & { promised: string })[]> =>
  things.length === 0
    ? []
    : many(
        db,
        sql`select w."itemId", w."optionId", coalesce((select trim_scale(sum(quantity))::text from stock_promises p
              where p.business_id = ${db.businessId} and p.item_id = w."itemId" and p.option_id is not distinct from w."optionId"), '0') as promised
            from ${THINGS(things)}`,
      );

/** What stands in a row of the list of stock; decimals in the item's unit. */
export type StockRow = StockThing &
  Stock &
  OnTheWayOut & {
    readonly name: string;
    readonly option: string;
    readonly code: string;
    readonly unit: string;
    readonly shelf: string;
    readonly lowAt: string | null;
    /** Sold since the day that was asked for, less what of it was undone. */
    readonly sold: string;
    readonly n: number;
  };

export type StockCursor = { readonly key: string; readonly itemId: string; readonly place: number };

/** Which things are asked for. */
export type StockAsked = {
  readonly words?: string;
  readonly lowOnly?: boolean;
  readonly things?: readonly StockThing[];
  /** Items by exactly these codes, in lower case. */
  readonly codes?: readonly string[];
};

/**
 * What stock is kept of, by name, each with its last movement and with what paid sales left on the shelf.
 *
 * @param soldSince sales from then on are summed
 */
export async function stockRows(
  db: Db,
  { words = '', lowOnly = false, things, codes }: StockAsked,
  { soldSince, limit, after = null }: { soldSince: Date; limit: number; after?: StockCursor | null },
): Promise<(StockRow & { place: number })[]> {
  const rows = await many<Omit<StockRow, 'sold' | 'soldNotPacked' | 'packedNotSold'> & { place: number }>(
    db,
    sql`select kept.*, coalesce(trim_scale(m.promised_after)::text, '0') as promised,
          coalesce(trim_scale(m.average_after)::text, '') as "averageCost", coalesce(m.n, 0) as n
        from (
          select i.id as "itemId", o.id as "optionId", i.name, coalesce(o.name, '') as option,
            coalesce(nullif(o.code, ''), i.code) as code, i.unit, coalesce(nullif(o.shelf, ''), i.going->>'shelf', '') as shelf,
            trim_scale(coalesce(o.on_hand, i.on_hand))::text as "onHand", trim_scale(case when o.id is null then i.low_at else o.low_at end)::text as "lowAt",
            coalesce(o.position, -1) as place, lower(i.name) as sorted
          from items i left join item_options o on o.business_id = i.business_id and o.item_id = i.id and not o.archived
            and o.on_hand is not null
          where i.business_id = ${db.businessId} and not i.archived and (o.id is not null or i.on_hand is not null)
            ${words ? sql`and i.search like ${likePattern(words)}` : NONE}
            ${codes ? sql`and (lower(i.code) = any(${[...codes]}::text[]) or lower(o.code) = any(${[...codes]}::text[]))` : NONE}
            ${things ? sql`and exists (select from ${THINGS(things)} where w."itemId" = i.id and w."optionId" is not distinct from o.id)` : NONE}
        ) as kept
        ${LAST(sql`kept."itemId"`, sql`kept."optionId"`, db)}
        where true ${after ? sql`and (sorted, "itemId", place) > (${after.key}, ${after.itemId}::uuid, ${after.place}::int)` : NONE}
          ${lowOnly ? sql`and ("onHand"::numeric - coalesce(m.promised_after, 0) <= "lowAt"::numeric or "onHand"::numeric - coalesce(m.promised_after, 0) < 0)` : NONE}
        order by sorted, "itemId", place limit ${most(limit)}`,
  );
  if (rows.length === 0) return [];
  const out = await onTheWayOut(db, rows);
  const sold = await soldLately(db, rows, soldSince);
  return rows.map((row) => {
    const key = thingKey(row);
    return { ...row, ...(out.get(key) ?? NOTHING_OUT), sold: sold.get(key) ?? '0' };
  });
}

const NOTHING_OUT: OnTheWayOut = { soldNotPacked: '0', packedNotSold: '0' };

const thingKey = ({ itemId, optionId }: StockThing): string => stockKey(itemId, optionId);

/** What of things is sold and lies there still, and what went out on account, by stock key; what is not there has neither. */
export async function onTheWayOut(db: Db, things: readonly StockThing[]): Promise<Map<string, OnTheWayOut>> {
  const rows = await many<StockThing & OnTheWayOut>(
    db,
    sql`select l.item_id as "itemId", l.option_id as "optionId",
          trim_scale(coalesce(sum(l.quantity - l.packed - l.dropped) filter (where p.id is null), 0))::text as "soldNotPacked",
          trim_scale(coalesce(sum(l.packed) filter (where p.id is not null), 0))::text as "packedNotSold"
        from handovers h
        join handover_lines l on l.business_id = h.business_id and l.handover_id = h.id and l.handed <> 'digital'
        left join lateral (select id from stock_promises p where p.business_id = h.business_id
          and (p.invoice_id = h.invoice_id or p.order_id = h.order_id) and p.item_id = l.item_id
          and p.option_id is not distinct from l.option_id limit 1) as p on true
        where h.business_id = ${db.businessId} and (h.state in ('open', 'done') or h.counter in ('open', 'done'))
          and l.item_id = any(${things.map(({ itemId }) => itemId)}::uuid[])
          and (case when l.handed = 'posted' then h.state else h.counter end = 'open' or p.id is not null)
        group by 1, 2`,
  );
  return new Map(
    rows.map(({ soldNotPacked, packedNotSold, ...thing }) => [thingKey(thing), { soldNotPacked, packedNotSold }]),
  );
}

/** What of things was sold from then on, less what of it was undone, by stock key. */
async function soldLately(db: Db, things: readonly StockThing[], since: Date): Promise<Map<string, string>> {
  const rows = await many<StockThing & { sold: string }>(
    db,
    sql`select item_id as "itemId", option_id as "optionId", trim_scale(-sum(on_hand_by))::text as sold from stock_movements
        where business_id = ${db.businessId} and kind in ('sold', 'unsold') and at >= ${since}
          and item_id = any(${things.map(({ itemId }) => itemId)}::uuid[]) group by 1, 2`,
  );
  return new Map(rows.map(({ sold, ...thing }) => [thingKey(thing), sold]));
}

/** A row of the log as it is shown; decimals in the item's unit. */
export type MovementRow = {
  readonly id: string;
  readonly n: number;
  readonly at: Date;
  readonly kind: Moved['kind'];
  readonly onHandBy: string;
  readonly promisedBy: string;
  readonly onHandAfter: string | null;
  readonly promisedAfter: string;
  readonly cost: string;
  readonly averageAfter: string;
  readonly byName: string;
  readonly why: string;
  readonly supplier: string;
  readonly paper: string;
  readonly fileId: string | null;
  readonly invoiceId: string | null;
  readonly orderId: string | null;
  /** The number of the invoice, or the reference of the order. */
  readonly sale: string;
};

/** The log of something, the newest first. @param before the place below which it goes on; null for the newest */
export const movementRows = (
  db: Db,
  { itemId, optionId }: StockThing,
  limit: number,
  before: number | null = null,
): Promise<MovementRow[]> =>
  many(
    db,
    sql`select s.id, s.n, s.at, s.kind, trim_scale(s.on_hand_by)::text as "onHandBy", trim_scale(s.promised_by)::text as "promisedBy",
          trim_scale(s.on_hand_after)::text as "onHandAfter", trim_scale(s.promised_after)::text as "promisedAfter",
          coalesce(trim_scale(s.cost)::text, '') as cost, coalesce(trim_scale(s.average_after)::text, '') as "averageAfter",
          s.by_name as "byName", s.why, s.supplier, s.paper, s.file_id as "fileId", s.invoice_id as "invoiceId", s.order_id as "orderId",
          coalesce(i.number, o.reference, '') as sale
        from stock_movements s
        left join invoices i on i.business_id = s.business_id and i.id = s.invoice_id
        left join orders o on o.business_id = s.business_id and o.id = s.order_id
        where s.business_id = ${db.businessId} and s.item_id = ${itemId} and s.option_id is not distinct from ${optionId}::uuid
          ${before === null ? NONE : sql`and s.n < ${before}`}
        order by s.n desc limit ${most(limit)}`,
  );

/**
 * Proves the stock of one business: what is on hand and promised is the sum of the log, each row of it follows from the one before, and
 * what sales have promised is what the log says. `off` in ten-thousandths of a unit.
 */
export const stockTroubles = (db: Db): Promise<LedgerTrouble[]> =>
  many(
    db,
    sql`with logged as materialized (
          select item_id, option_id, sum(on_hand_by) as on_hand, sum(promised_by) as promised,
            max(n) <> count(*) or bool_or(off) as broken
          from (
            select item_id, option_id, n, on_hand_by, promised_by,
              coalesce(on_hand_after, 0) - on_hand_by <> coalesce(lag(on_hand_after) over log, 0)
                or promised_after - promised_by <> coalesce(lag(promised_after) over log, 0) as off
            from stock_movements where business_id = ${db.businessId}
            window log as (partition by item_id, option_id order by n)
          ) as rows group by item_id, option_id
        ), kept as (
          select id as item_id, null::uuid as option_id, name, on_hand from items where business_id = ${db.businessId}
          union all
          select o.item_id, o.id, i.name || ', ' || o.name, o.on_hand from item_options o
          join items i on i.business_id = o.business_id and i.id = o.item_id where o.business_id = ${db.businessId}
        ), promised as (
          select item_id, option_id, sum(quantity) as promised from stock_promises where business_id = ${db.businessId} group by 1, 2
        ), side as (
          select kept.name, kept.on_hand, coalesce(logged.on_hand, 0) as logged, coalesce(logged.promised, 0) as promised,
            case when kept.on_hand is null then 0 else coalesce(promised.promised, 0) end as wanted, coalesce(logged.broken, false) as broken
          from kept
          left join logged on logged.item_id = kept.item_id and logged.option_id is not distinct from kept.option_id
          left join promised on promised.item_id = kept.item_id and promised.option_id is not distinct from kept.option_id
        )
        select 'stock and its log differ' as what, name as subject, ((coalesce(on_hand, 0) - logged) * 10000)::bigint as off
          from side where coalesce(on_hand, 0) <> logged
        union all
        select 'stock promised and its log differ', name, ((wanted - promised) * 10000)::bigint from side where wanted <> promised
        union all
        select 'the log of stock has a gap', name, 0::bigint from side where broken`,
  );

/** What was said of goods of a sale that came back. */
export type SaidComeback = StockThing & Comeback;

/** All that was said of goods of a sale that came back, in no order. @param saleId an invoice's or an order's */
export const comebacksOf = (db: Db, saleId: string): Promise<SaidComeback[]> =>
  many(
    db,
    sql`select item_id as "itemId", option_id as "optionId", said_by as by, trim_scale(quantity)::text as quantity from stock_comebacks
        where business_id = ${db.businessId} and (invoice_id = ${saleId} or order_id = ${saleId})`,
  );

/** Notes what is said of goods of a sale that came back. */
export const insertComebacks = (
  tx: Tx,
  { invoiceId, orderId }: { readonly invoiceId: string | null; readonly orderId: string | null },
  said: readonly SaidComeback[],
): Promise<number> =>
  run(
    tx,
    sql`insert into stock_comebacks (business_id, id, invoice_id, order_id, item_id, option_id, said_by, quantity, at)
        select ${tx.businessId}, gen_random_uuid(), ${invoiceId}, ${orderId}, "itemId", "optionId", by, quantity, ${tx.now}
        from jsonb_to_recordset(${records(said)}::jsonb) as given ("itemId" uuid, "optionId" uuid, by text, quantity numeric)`,
  );

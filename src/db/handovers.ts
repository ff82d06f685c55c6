import type { CalendarDate } from '@/core/dates/calendar-date';
import type { Block, HandoverLine, Recipient } from '@/core/parcel/handover';
import { type DeliverSettings, wholeDelivery } from '@/core/parcel/notice';
import type { Db, Tx } from './pool';
import { likePattern, many, most, NONE, one, records, run, type Statement, sql } from './sql';

/** A line of what a sale hands over, with how much of it is in parcels or was taken back; decimals in the line's unit. */
export type KeptHandoverLine = HandoverLine & { readonly packed: string; readonly dropped: string };

/** What a sale hands over; `number` is the invoice's number or the order's reference. */
export type Handover = {
  readonly id: string;
  readonly invoiceId: string | null;
  readonly orderId: string | null;
  readonly customerId: string | null;
  /** Of what is posted: waits to be paid, to be packed, packed, dropped with its sale. */
  readonly state: 'waits' | 'open' | 'done' | 'dropped';
  /** Of what is collected, the same; empty where nothing is. */
  readonly counter: '' | 'waits' | 'open' | 'done' | 'dropped';
  readonly block: Block;
  readonly number: string;
  readonly currency: string;
  readonly chargedMinor: bigint;
  /** The parcel on which what was charged for delivery counts; null while none does. */
  readonly chargedOn: string | null;
  readonly recipient: Recipient;
  readonly wantedBy: CalendarDate | null;
  readonly wish: string;
  readonly readyAt: Date | null;
  readonly lines: readonly KeptHandoverLine[];
};

export type NewHandover = Omit<Handover, 'chargedOn' | 'readyAt' | 'lines'> & {
  readonly lines: readonly HandoverLine[];
};

/** Notes what sales hand over, each sale once. */
export async function insertHandovers(tx: Tx, handovers: readonly NewHandover[]): Promise<void> {
  if (handovers.length === 0) return;
  const heads = handovers.map(({ lines: _, ...head }) => head);
  await run(
    tx,
    sql`insert into handovers (business_id, id, invoice_id, order_id, customer_id, state, counter, block, number, currency,
          charged_minor, recipient, wanted_by, wish, made_at, ready_at)
        select ${tx.businessId}, id, "invoiceId", "orderId", "customerId", state, counter, block, number, currency,
          "chargedMinor", recipient, "wantedBy", wish, ${tx.now}, case when state = 'open' or counter = 'open' then ${tx.now}::timestamptz end
        from jsonb_to_recordset(${records(heads)}::jsonb) as given (id uuid, "invoiceId" uuid, "orderId" uuid, "customerId" uuid,
          state text, counter text, block text, number text, currency text, "chargedMinor" bigint, recipient jsonb, "wantedBy" date, wish text)`,
  );
  const lines = handovers.flatMap(({ id, lines: own }) => own.map((line) => ({ ...line, handoverId: id })));
  await run(
    tx,
    sql`insert into handover_lines (business_id, handover_id, line, item_id, option_id, what, quantity, handed, value_minor)
        select ${tx.businessId}, "handoverId", line, "itemId", "optionId", what, quantity, handed, "valueMinor"
        from jsonb_to_recordset(${records(lines)}::jsonb) as given ("handoverId" uuid, line smallint, "itemId" uuid, "optionId" uuid,
          what text, quantity numeric, handed text, "valueMinor" bigint)`,
  );
}

const HEAD = sql`h.id, h.invoice_id as "invoiceId", h.order_id as "orderId", h.customer_id as "customerId", h.state, h.counter, h.block, h.number,
  h.currency, h.charged_minor as "chargedMinor", h.charged_on as "chargedOn", h.recipient, h.wanted_by as "wantedBy", h.wish,
  h.ready_at as "readyAt"`;
const COLUMNS = sql`${HEAD},
  coalesce((select jsonb_agg(jsonb_build_object('line', l.line, 'itemId', l.item_id, 'optionId', l.option_id, 'what', l.what,
      'quantity', trim_scale(l.quantity)::text, 'packed', trim_scale(l.packed)::text, 'dropped', trim_scale(l.dropped)::text,
      'handed', l.handed, 'valueMinor', l.value_minor::text) order by l.line)
    from handover_lines l where l.business_id = h.business_id and l.handover_id = h.id), '[]') as lines`;

type Row = Omit<Handover, 'lines'> & { lines: (Omit<KeptHandoverLine, 'valueMinor'> & { valueMinor: string })[] };
const whole = (rows: readonly Row[]): Handover[] =>
  rows.map((row) => ({ ...row, lines: row.lines.map((line) => ({ ...line, valueMinor: BigInt(line.valueMinor) })) }));

/** Handovers by id. @param hold nobody else changes them until the transaction ends */
export const handoversByIds = async (db: Db, ids: readonly string[], hold = false): Promise<Handover[]> =>
  whole(
    await many<Row>(
      db,
      sql`select ${COLUMNS} from handovers h where h.business_id = ${db.businessId} and h.id = any(${[...ids]}::uuid[])
          order by h.id ${hold ? sql`for update of h` : NONE}`,
    ),
  );

/** The same of several, held until the transaction ends. */
export const handoversOfSales = async (db: Tx, saleIds: readonly string[]): Promise<Handover[]> =>
  whole(
    await many<Row>(
      db,
      sql`select ${COLUMNS} from handovers h where h.business_id = ${db.businessId}
          and (h.invoice_id = any(${[...saleIds]}::uuid[]) or h.order_id = any(${[...saleIds]}::uuid[])) order by h.id for update of h`,
    ),
  );

/** What an invoice or an order hands over. */
export const handoversOfSale = async (db: Db, saleId: string): Promise<Handover[]> =>
  whole(
    await many<Row>(
      db,
      sql`select ${COLUMNS} from handovers h where h.business_id = ${db.businessId} and (h.invoice_id = ${saleId} or h.order_id = ${saleId})`,
    ),
  );

/** Where a page of what is to be packed ended: when the last one became ready, and its id. */
export type PackCursor = { readonly at: Date; readonly id: string };

/** The statement of one page of what is to be packed, the oldest first, so that a test can read its plan. */
export const toPackPage = (
  businessId: string,
  { blocked, words = '' }: { readonly blocked: boolean; readonly words?: string },
  limit: number,
  after: PackCursor | null,
): Statement =>
  sql`select ${HEAD} from handovers h where h.business_id = ${businessId} and h.state = 'open'
        and ${blocked ? sql`h.block <> ''` : sql`h.block = ''`}
        ${words ? sql`and (lower(h.number) like ${likePattern(words)} or lower(h.recipient->>'name') like ${likePattern(words)})` : NONE}
        ${after ? sql`and (h.ready_at, h.id) > (${after.at}, ${after.id}::uuid)` : NONE}
      order by h.ready_at, h.id limit ${most(limit)}`;

/** A page of what is to be packed: the heads first, then all their lines at once. */
export async function toPackRows(
  db: Db,
  asked: { readonly blocked: boolean; readonly words?: string },
  limit: number,
  after: PackCursor | null = null,
): Promise<Handover[]> {
  const heads = await many<Omit<Handover, 'lines'>>(db, toPackPage(db.businessId, asked, limit, after));
  if (heads.length === 0) return [];
  const lines = await many<KeptHandoverLine & { handoverId: string }>(
    db,
    sql`select handover_id as "handoverId", line, item_id as "itemId", option_id as "optionId", what, trim_scale(quantity)::text as quantity,
          trim_scale(packed)::text as packed, trim_scale(dropped)::text as dropped, handed, value_minor as "valueMinor"
        from handover_lines where business_id = ${db.businessId} and handover_id = any(${heads.map(({ id }) => id)}::uuid[])
        order by handover_id, line`,
  );
  const ofHead = new Map<string, KeptHandoverLine[]>(heads.map(({ id }) => [id, []]));
  for (const { handoverId, ...line } of lines) ofHead.get(handoverId)?.push(line);
  return heads.map((head) => ({ ...head, lines: ofHead.get(head.id) ?? [] }));
}

/** Nobody counts further than this: a thousand and more are many. */
const MOST_COUNTED = 1000;

/** What stands around the lists of To pack, in one look. */
export type PackHead = {
  /** How many sales can be packed, and how many cannot yet; each at most `MOST_COUNTED`. */
  readonly ready: number;
  readonly blocked: number;
  /** Labels that nobody printed yet, in the order in which they were bought. */
  readonly toPrint: readonly string[];
  readonly toDeclare: readonly string[];
  readonly settings: DeliverSettings;
};

export async function packHead(db: Db, mostPrinted: number): Promise<PackHead> {
  const open = sql`select 1 from handovers where business_id = ${db.businessId} and state = 'open'`;
  const { kept, ...head } = await one<Omit<PackHead, 'settings'> & { kept: Partial<DeliverSettings> }>(
    db,
    sql`select (select count(*)::int from (${open} and block = '' limit ${most(MOST_COUNTED)}) as counted) as ready,
          (select count(*)::int from (${open} and block <> '' limit ${most(MOST_COUNTED)}) as counted) as blocked,
          array(select id from parcels where business_id = ${db.businessId} and printed_at is null and state = 'bought'
            order by bought_at, id limit ${most(mostPrinted)}) as "toPrint",
          array(select id from parcels where business_id = ${db.businessId} and printed_at is null and state = 'bought'
            and label->>'customsForm' <> '' order by bought_at, id limit ${most(mostPrinted)}) as "toDeclare",
          (select delivering from businesses where business_id = ${db.businessId}) as kept`,
  );
  return { ...head, settings: wholeDelivery(kept) };
}

/** Sales that are paid now can be packed. */
export const updateReady = (tx: Tx, saleIds: readonly string[]): Promise<number> =>
  run(
    tx,
    sql`update handovers set state = case when state = 'waits' then 'open' else state end,
          counter = case when counter = 'waits' then 'open' else counter end, ready_at = ${tx.now}
        where business_id = ${tx.businessId} and (state = 'waits' or counter = 'waits')
        and (invoice_id = any(${[...saleIds]}::uuid[]) or order_id = any(${[...saleIds]}::uuid[]))`,
  );

/** How the collected lines of sales stand. */
export const updateCounter = (
  tx: Tx,
  ids: readonly string[],
  counter: Exclude<Handover['counter'], ''>,
): Promise<number> =>
  run(
    tx,
    sql`update handovers set counter = ${counter}
        where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[]) and counter <> ''`,
  );

export const updateHandoverState = (tx: Tx, ids: readonly string[], state: Handover['state']): Promise<number> =>
  run(
    tx,
    sql`update handovers set state = ${state} where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[])`,
  );

/** Whom they go to, and what keeps them. */
export const updateRecipient = (tx: Tx, id: string, recipient: Recipient, block: Block): Promise<number> =>
  run(
    tx,
    sql`update handovers set recipient = ${JSON.stringify(recipient)}, block = ${block}
        where business_id = ${tx.businessId} and id = ${id}`,
  );

/** More of lines is in parcels, or less where below 0; `quantity` a decimal with its sign. */
export const addPacked = (
  tx: Tx,
  moves: readonly { readonly handoverId: string; readonly line: number; readonly quantity: string }[],
): Promise<number> =>
  run(
    tx,
    sql`update handover_lines l set packed = l.packed + more.quantity
        from (select "handoverId", line, sum(quantity) as quantity from jsonb_to_recordset(${records(moves)}::jsonb)
            as given ("handoverId" uuid, line smallint, quantity numeric) group by 1, 2) as more
        where l.business_id = ${tx.businessId} and l.handover_id = more."handoverId" and l.line = more.line`,
  );

/** What of lines was given back before it left is not packed any more. */
export const addDropped = (
  tx: Tx,
  moves: readonly { readonly handoverId: string; readonly line: number; readonly quantity: string }[],
): Promise<number> =>
  run(
    tx,
    sql`update handover_lines l set dropped = least(l.quantity - l.packed, l.dropped + more.quantity)
        from jsonb_to_recordset(${records(moves)}::jsonb) as more ("handoverId" uuid, line smallint, quantity numeric)
        where l.business_id = ${tx.businessId} and l.handover_id = more."handoverId" and l.line = more.line`,
  );

/** On which parcel what was charged for delivery counts. */
export const updateChargedOn = (tx: Tx, ids: readonly string[], parcelId: string | null): Promise<number> =>
  run(
    tx,
    sql`update handovers set charged_on = ${parcelId} where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[])`,
  );

/** Open ones of a number as it is scanned or typed, whole. */
export const handoverByNumber = async (db: Db, number: string): Promise<Handover | null> =>
  whole(
    await many<Row>(
      db,
      sql`select ${COLUMNS} from handovers h where h.business_id = ${db.businessId} and h.state in ('open', 'done', 'waits')
          and lower(h.number) = ${number.toLowerCase()} order by h.state = 'open' desc, h.made_at desc limit 1`,
    ),
  )[0] ?? null;

/** A line of an open sale that is still to be packed, of an item. */
export type OpenWish = {
  readonly id: string;
  readonly block: Block;
  readonly itemId: string;
  readonly optionId: string | null;
  readonly quantity: string;
};

/** All that open sales still want to have packed which want any of these items, in the order in which they became ready. */
export const openWishes = (db: Db, itemIds: readonly string[]): Promise<OpenWish[]> =>
  many(
    db,
    sql`select h.id, h.block, l.item_id as "itemId", l.option_id as "optionId", trim_scale(l.quantity - l.packed - l.dropped)::text as quantity
        from handovers h join handover_lines l on l.business_id = h.business_id and l.handover_id = h.id
        where h.business_id = ${db.businessId} and h.state = 'open' and l.handed = 'posted' and l.item_id is not null
          and l.quantity > l.packed + l.dropped
          and h.id in (select handover_id from handover_lines x where x.business_id = ${db.businessId} and x.item_id = any(${[...itemIds]}::uuid[]))
        order by h.ready_at, h.id, l.line`,
  );

/** The items that sales hand over. @param ids of the invoices or the orders */
export const goodsOfSales = (db: Db, ids: readonly string[]): Promise<{ itemId: string; optionId: string | null }[]> =>
  many(
    db,
    sql`select distinct l.item_id as "itemId", l.option_id as "optionId"
        from handovers h join handover_lines l on l.business_id = h.business_id and l.handover_id = h.id
        where h.business_id = ${db.businessId} and l.item_id is not null
          and (h.invoice_id = any(${[...ids]}::uuid[]) or h.order_id = any(${[...ids]}::uuid[]))`,
  );

/** What keeps sales from going. */
export const updateBlocks = (tx: Tx, ids: readonly string[], block: Block): Promise<number> =>
  run(
    tx,
    sql`update handovers set block = ${block} where business_id = ${tx.businessId} and id = any(${[...ids]}::uuid[])`,
  );

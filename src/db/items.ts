import { GOES_AS_USUAL, type Item, type ItemOption, itemSearchText, type Promised, stockKey } from '@/core/item/item';
import type { Db, Tx } from './pool';
import { joined, likePattern, many, NONE, one, records, run, type Statement, sql } from './sql';

export type { Item };
export type ItemCursor = { readonly key: string; readonly id: string };

const COLUMNS = sql`items.id, items.code, items.name, items.description, items.kind, items.unit, items.prices, items.cost,
  items.tax_class as "taxClass", trim_scale(items.on_hand)::text as "onHand", trim_scale(items.low_at)::text as "lowAt",
  items.picture_id as "pictureId", items.going,
  coalesce((select jsonb_agg(jsonb_build_object('id', o.id, 'name', o.name, 'code', o.code, 'prices', o.prices,
      'onHand', trim_scale(o.on_hand)::text, 'lowAt', trim_scale(o.low_at)::text, 'grams', o.grams, 'shelf', o.shelf) order by o.position)
    from item_options o where o.business_id = items.business_id and o.item_id = items.id and not o.archived), '[]') as options`;

/** Items as they are kept: what was kept before a part of how it goes existed is as usual. */
const whole = (rows: readonly Item[]): Item[] =>
  rows.map((item) => ({ ...item, going: { ...GOES_AS_USUAL, ...item.going } }));

export const itemsById = async (db: Db, ids: readonly string[]): Promise<Item[]> =>
  whole(
    await many(
      db,
      sql`select ${COLUMNS} from items where business_id = ${db.businessId} and id = any(${[...ids]}::uuid[])`,
    ),
  );

/** The statement of one page of items by name, so that a test can read its plan. */
export function itemPage(businessId: string, words: string, limit: number, after: ItemCursor | null): Statement {
  const found = words
    .split(/\s+/)
    .filter(Boolean)
    .slice(0, 5)
    .map((word) => sql`and search like ${likePattern(word)}`);
  return sql`select ${COLUMNS} from items where business_id = ${businessId} and not archived ${joined(found, sql` `)}
      ${after ? sql`and (lower(name), id) > (${after.key}, ${after.id}::uuid)` : NONE}
      order by lower(name), id limit ${limit}`;
}

export const itemRows = async (
  db: Db,
  words: string,
  limit: number,
  after: ItemCursor | null = null,
): Promise<Item[]> => whole(await many(db, itemPage(db.businessId, words, limit, after)));

/** Which of these codes and (for items without one) names there are, in lower case: `code CODE`, `name NAME`. */
export async function itemsKnownAs(db: Db, codes: readonly string[], names: readonly string[]): Promise<Set<string>> {
  const rows = await many<{ code: string; name: string }>(
    db,
    sql`select lower(code) as code, lower(name) as name from items where business_id = ${db.businessId} and not archived
          and (lower(code) = any(${[...codes]}::text[]) and code <> '' or lower(name) = any(${[...names]}::text[]))`,
  );
  return new Set(rows.flatMap(({ code, name }) => [...(code ? [`code ${code}`] : []), `name ${name}`]));
}

const json = (value: unknown): string => JSON.stringify(value);

/** Adds an item; what is on hand comes by its stock alone. */
export const insertItem = (tx: Tx, item: Item): Promise<number> =>
  run(
    tx,
    sql`insert into items (id, business_id, code, name, description, kind, unit, prices, cost, tax_class, low_at,
          picture_id, going, search, created_at, changed_at)
        values (${item.id}, ${tx.businessId}, ${item.code}, ${item.name}, ${item.description}, ${item.kind}, ${item.unit},
          ${json(item.prices)}, ${item.cost}, ${item.taxClass}, ${item.lowAt}, ${item.pictureId},
          ${json(item.going)}, ${itemSearchText(item)}, ${tx.now}, ${tx.now})`,
  );

export const updateItem = (tx: Tx, item: Item): Promise<number> =>
  run(
    tx,
    sql`update items set code = ${item.code}, name = ${item.name}, description = ${item.description}, kind = ${item.kind},
          unit = ${item.unit}, prices = ${json(item.prices)}, cost = ${item.cost}, tax_class = ${item.taxClass},
          low_at = ${item.lowAt}, picture_id = ${item.pictureId}, going = ${json(item.going)},
          search = ${itemSearchText(item)}, changed_at = ${tx.now}
        where business_id = ${tx.businessId} and id = ${item.id} and not archived`,
  );

/** Puts an item's options in place of the ones it has; those no longer named are set aside, since papers may name them. */
export async function replaceOptions(tx: Tx, itemId: string, options: readonly ItemOption[]): Promise<void> {
  await run(
    tx,
    sql`update item_options set archived = true
        where business_id = ${tx.businessId} and item_id = ${itemId} and id <> all (${options.map(({ id }) => id)}::uuid[])`,
  );
  for (const [position, option] of options.entries()) {
    await run(
      tx,
      sql`insert into item_options (id, business_id, item_id, position, name, code, prices, low_at, grams, shelf)
          values (${option.id}, ${tx.businessId}, ${itemId}, ${position}, ${option.name}, ${option.code}, ${json(option.prices)},
            ${option.lowAt}, ${option.grams ?? 0}, ${option.shelf ?? ''})
          on conflict (business_id, id) do update set position = excluded.position, name = excluded.name, code = excluded.code,
            prices = excluded.prices, low_at = excluded.low_at, grams = excluded.grams, shelf = excluded.shelf, archived = false
          where item_options.business_id = ${tx.businessId} and item_options.item_id = ${itemId}`,
    );
  }
}

/** What customs ask of items, as somebody said it for a parcel; what is empty, or what an option weighs by itself, stays. Grams of one. */
export const rememberForCustoms = (
  tx: Tx,
  known: readonly {
    readonly itemId: string;
    readonly hsCode: string;
    readonly origin: string;
    readonly grams: number;
  }[],
): Promise<number> =>
  run(
    tx,
    sql`update items i set changed_at = ${tx.now}, going = i.going
          || case when given."hsCode" <> '' then jsonb_build_object('hsCode', given."hsCode") else '{}' end
          || case when given.origin <> '' then jsonb_build_object('origin', given.origin) else '{}' end
          || case when given.grams > 0 and coalesce((i.going->>'grams')::int, 0) = 0 then jsonb_build_object('grams', given.grams) else '{}' end
        from jsonb_to_recordset(${json(known)}::jsonb) as given ("itemId" uuid, "hsCode" text, origin text, grams int)
        where i.business_id = ${tx.businessId} and i.id = given."itemId"`,
  );

/** Puts an item back on the list. */
export const unarchiveItem = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update items set archived = false, changed_at = ${tx.now} where business_id = ${tx.businessId} and id = ${id} and archived`,
  );

/** What names an item: offers by name, and how many plans that run and recurring invoices there are. */
export type ItemUses = { readonly offers: readonly string[]; readonly plans: number; readonly recurring: number };

export const usesOfItem = (db: Db, id: string): Promise<ItemUses> =>
  one(
    db,
    sql`select
          coalesce((select jsonb_agg(name order by name) from offers where business_id = ${db.businessId} and state <> 'closed'
            and definition->'items' @> ${JSON.stringify([{ itemId: id }])}), '[]') as offers,
          (select count(*)::int from plans where business_id = ${db.businessId} and state in ('waiting', 'active', 'paused')
            and terms->'paper'->'lines' @> ${JSON.stringify([{ itemId: id }])}) as plans,
          (select count(*)::int from recurring_invoices where business_id = ${db.businessId} and state <> 'finished'
            and paper->'lines' @> ${JSON.stringify([{ itemId: id }])}) as recurring`,
  );

export const archiveItem = (tx: Tx, id: string): Promise<number> =>
  run(
    tx,
    sql`update items set archived = true, changed_at = ${tx.now} where business_id = ${tx.businessId} and id = ${id} and not archived`,
  );

/** What is promised of these items to customers and has not left the stock, in units. */
export async function promisedOf(db: Db, itemIds: readonly string[]): Promise<Promised> {
  const rows = await many<{ itemId: string; optionId: string | null; quantity: string }>(
    db,
    sql`select item_id as "itemId", option_id as "optionId", trim_scale(sum(quantity))::text as quantity from stock_promises
        where business_id = ${db.businessId} and item_id = any(${[...itemIds]}::uuid[]) group by item_id, option_id`,
  );
  return Object.fromEntries(rows.map((row) => [stockKey(row.itemId, row.optionId), row.quantity]));
}

/** What an invoice or an order promises of the stock. */
export type StockPromise = {
  readonly invoiceId?: string | null;
  readonly orderId?: string | null;
  readonly itemId: string;
  readonly optionId: string | null;
  readonly quantity: string;
};

export async function insertPromises(tx: Tx, promises: readonly StockPromise[]): Promise<void> {
  if (promises.length === 0) return;
  await run(
    tx,
    sql`insert into stock_promises (business_id, invoice_id, order_id, item_id, option_id, quantity)
        select ${tx.businessId}, "invoiceId", "orderId", "itemId", "optionId", quantity
        from jsonb_to_recordset(${records(promises)}::jsonb)
          as given ("invoiceId" uuid, "orderId" uuid, "itemId" uuid, "optionId" uuid, quantity numeric)`,
  );
}

/** Goods of the stock, in units. */
export type Goods = Pick<StockPromise, 'itemId' | 'optionId' | 'quantity'>;

/** What invoices or orders promised is promised no more; what that was. @param ids of the ones or the others */
export const takePromises = (tx: Tx, ids: readonly string[]): Promise<StockPromise[]> =>
  many(
    tx,
    sql`delete from stock_promises
        where business_id = ${tx.businessId} and (invoice_id = any(${[...ids]}) or order_id = any(${[...ids]}))
        returning invoice_id as "invoiceId", order_id as "orderId", item_id as "itemId", option_id as "optionId",
          trim_scale(quantity)::text as quantity`,
  );

/** The items that were added last, newest first. */
export const newestItems = (db: Db, limit: number): Promise<{ id: string; name: string; createdAt: Date }[]> =>
  many(
    db,
    sql`select id, name, created_at as "createdAt" from items where business_id = ${db.businessId} and not archived
        order by created_at desc, id limit ${limit}`,
  );

/** How many items there are of each tax class. */
export const itemsByClass = (db: Db): Promise<{ class: string; count: number }[]> =>
  many(
    db,
    sql`select tax_class as class, count(*)::int as count from items where business_id = ${db.businessId} and not archived
        group by tax_class order by count desc, tax_class`,
  );

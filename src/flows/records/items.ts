import { randomUUID } from 'node:crypto';
import { type Item, itemProblems, stockKey } from '@/core/item/item';
import { available } from '@/core/stock/available';
import {
  archiveItem,
  type ItemCursor,
  type ItemUses,
  insertItem,
  itemRows,
  itemsByClass,
  itemsById,
  newestItems,
  promisedOf,
  replaceOptions,
  unarchiveItem,
  updateItem,
  usesOfItem,
} from '@/db/items';
import type { Db } from '@/db/pool';
import { isTaken } from '@/db/sql';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { found } from '@/flows/door/rights';
import { keepStock } from '@/flows/stock/keep-stock';
import { type StockLine, stockToOrder } from '@/flows/stock/stock-desk';

export type { Item };

const PAGE = 60;
const FOUND = 12;

/** Items found as one types. */
export const findItems = desk('see').read(async (db, words: string): Promise<Item[]> => {
  return itemRows(db, words, FOUND);
});

export type ItemPage = { readonly rows: readonly Item[]; readonly next: ItemCursor | null };

/** A page of items by name. */
export const itemsPage = desk('see').run(
  async (ctx, words: string, after: ItemCursor | null = null): Promise<ItemPage> => {
    const rows = await ctx.read((db) => itemRows(db, words, PAGE + 1, after));
    const shown = rows.slice(0, PAGE);
    const last = shown.at(-1);
    return { rows: shown, next: rows.length > PAGE && last ? { key: last.name.toLowerCase(), id: last.id } : null };
  },
);

/** An item with what is promised of it and its options. @throws Refusal `not-found` */
export const itemSheet = desk('see').read(
  async (db, id: string): Promise<{ item: Item; promised: Readonly<Record<string, string>> }> => {
    return {
      item: found((await itemsById(db, [id]))[0]),
      promised: await promisedOf(db, [id]),
    };
  },
);

/** What is available of these items and their options, by key; those that keep no stock are absent. */
export async function availableOf(db: Db, ids: readonly string[]): Promise<Record<string, string>> {
  const promised = await promisedOf(db, ids);
  const rows = (await itemsById(db, ids)).flatMap((item) => [
    { key: stockKey(item.id, null), onHand: item.onHand },
    ...item.options.map((option) => ({ key: stockKey(item.id, option.id), onHand: option.onHand })),
  ]);
  return Object.fromEntries(
    rows.flatMap(({ key, onHand }) => (onHand === null ? [] : [[key, available(onHand, promised[key] ?? '0')]])),
  );
}

/** The same, asked at the desk. */
export const availableStock = desk('see').read(async (db, ids: readonly string[]): Promise<Record<string, string>> => {
  return availableOf(db, ids);
});

/**
 * Keeps an item, new or changed, with its options.
 *
 * @param why where the stock that is typed is what there is now, and not only whether it is kept
 * @throws Refusal `paper-not-ready` with the places, `code-taken`, `not-found`
 */
export const keepItem = desk('records').run(
  async (ctx, id: string | null, fields: Omit<Item, 'id'>, why?: string): Promise<Item> => {
    const item: Item = { id: id ?? randomUUID(), ...fields };
    const problems = itemProblems(item);
    if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
    try {
      await ctx.write(async (tx) => {
        if (id === null) await insertItem(tx, item);
        else if ((await updateItem(tx, item)) === 0) throw new Refusal('not-found');
        await replaceOptions(tx, item.id, item.options);
        await keepStock(tx, [item], why);
      });
    } catch (error) {
      if (isTaken(error, 'items'))
        throw new Refusal('code-taken', [{ field: 'code', words: 'Another item has this code.' }]);
      throw error;
    }
    return found((await ctx.read((db) => itemsById(db, [item.id])))[0]);
  },
);

/** What names an item that is taken off the list: it goes on as it is, and no stock is kept for it any more. */
export const itemUses = desk('see').read((db, id: string): Promise<ItemUses> => usesOfItem(db, id));

/** Puts an item back on the list. @throws Refusal `not-found`, `code-taken` */
export const restoreItem = desk('records').run(async (ctx, id: string): Promise<void> => {
  try {
    const back = await ctx.write((tx) => unarchiveItem(tx, id));
    if (back === 0) throw new Refusal('not-found');
  } catch (error) {
    if (isTaken(error, 'items')) throw new Refusal('code-taken');
    throw error;
  }
});

/** Takes an item off the list; papers that name it keep what they say. */
export const removeItem = desk('records').write(async (tx, id: string): Promise<void> => {
  if ((await archiveItem(tx, id)) === 0) throw new Refusal('not-found');
});

/** What helps while no item is chosen: what runs out, and what was added last. */
export const itemOverview = desk('see').read(
  async (db): Promise<{ low: StockLine[]; newest: Awaited<ReturnType<typeof newestItems>> }> => ({
    low: await stockToOrder(db, 12),
    newest: await newestItems(db, 8),
  }),
);

/** How many items there are of each tax class: a class without a rule is taxed nowhere. */
export const itemClasses = desk('see').read((db): ReturnType<typeof itemsByClass> => itemsByClass(db));

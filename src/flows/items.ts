import { randomUUID } from 'node:crypto';
import { type Item, itemProblems, stockKey } from '@/core/item/item';
import { available } from '@/core/item/stock';
import {
  archiveItem,
  type ItemCursor,
  insertItem,
  itemRows,
  itemsById,
  promisedOf,
  replaceOptions,
  updateItem,
} from '@/db/items';
import { announce } from '@/db/jobs';
import type { Actor } from '@/db/people';
import type { Db } from '@/db/pool';
import { inBusiness, readBusiness } from '@/db/transaction';
import { services } from '@/outside/services';
import { found, requireRight } from './access';
import { Refusal } from './refusal';

export type { Item };

const PAGE = 60;
const FOUND = 12;

/** Items found as one types. */
export function findItems(actor: Actor, words: string): Promise<Item[]> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, (db) => itemRows(db, actor.businessId, words, FOUND));
}

export type ItemPage = { readonly rows: readonly Item[]; readonly next: ItemCursor | null };

/** A page of items by name. */
export async function itemsPage(actor: Actor, words: string, after: ItemCursor | null = null): Promise<ItemPage> {
  requireRight(actor, 'read');
  const rows = await readBusiness(actor.businessId, (db) => itemRows(db, actor.businessId, words, PAGE + 1, after));
  const shown = rows.slice(0, PAGE);
  const last = shown.at(-1);
  return { rows: shown, next: rows.length > PAGE && last ? { key: last.name.toLowerCase(), id: last.id } : null };
}

/** An item with what is promised of it and its options. @throws Refusal `not-found` */
export function itemSheet(
  actor: Actor,
  id: string,
): Promise<{ item: Item; promised: Readonly<Record<string, string>> }> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, async (db) => ({
    item: found((await itemsById(db, actor.businessId, [id]))[0]),
    promised: await promisedOf(db, actor.businessId, [id]),
  }));
}

/** What is available of these items and their options, by key; those that keep no stock are absent. */
export async function availableOf(db: Db, businessId: string, ids: readonly string[]): Promise<Record<string, string>> {
  const promised = await promisedOf(db, businessId, ids);
  const rows = (await itemsById(db, businessId, ids)).flatMap((item) => [
    { key: stockKey(item.id, null), onHand: item.onHand },
    ...item.options.map((option) => ({ key: stockKey(item.id, option.id), onHand: option.onHand })),
  ]);
  return Object.fromEntries(
    rows.flatMap(({ key, onHand }) => (onHand === null ? [] : [[key, available(onHand, promised[key] ?? '0')]])),
  );
}

/** The same, asked at the desk. */
export function availableStock(actor: Actor, ids: readonly string[]): Promise<Record<string, string>> {
  requireRight(actor, 'read');
  return readBusiness(actor.businessId, (db) => availableOf(db, actor.businessId, ids));
}

/** Keeps an item, new or changed, with its options. @throws Refusal `paper-not-ready` with the places, `code-taken`, `not-found` */
export async function keepItem(actor: Actor, id: string | null, fields: Omit<Item, 'id'>): Promise<Item> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  const item: Item = { id: id ?? randomUUID(), ...fields };
  const problems = itemProblems(item);
  if (problems.length > 0) throw new Refusal('paper-not-ready', problems);
  try {
    await inBusiness(actor.businessId, async (tx) => {
      if (id === null) await insertItem(tx, actor.businessId, item, now);
      else if ((await updateItem(tx, actor.businessId, item, now)) === 0) throw new Refusal('not-found');
      await replaceOptions(tx, actor.businessId, item.id, item.options);
      await announce(tx, actor.businessId);
    });
  } catch (error) {
    if (error instanceof Error && 'constraint' in error && error.constraint === 'items_code_unique')
      throw new Refusal('code-taken', [{ field: 'code', words: 'Another item has this code.' }]);
    throw error;
  }
  return item;
}

/** Takes an item off the list; papers that name it keep what they say. */
export async function removeItem(actor: Actor, id: string): Promise<void> {
  requireRight(actor, 'ask');
  const now = await services().clock.now();
  await inBusiness(actor.businessId, async (tx) => {
    if ((await archiveItem(tx, actor.businessId, id, now)) === 0) throw new Refusal('not-found');
    await announce(tx, actor.businessId);
  });
}

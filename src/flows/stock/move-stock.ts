/** The one way in which stock changes: held, worked out, written into its log, and sales that wait for it looked at. */
import { randomUUID } from 'node:crypto';
import { stockKey } from '@/core/item/item';
import { moved, type Stock, type StockChange } from '@/core/stock/movement';
import { type Goods, insertPromises, type StockPromise, takePromises } from '@/db/items';
import { holdStock, insertMovements, type NewMovement, promisedNow, type StockThing, stockNow } from '@/db/stock';
import type { Writing } from '@/flows/door/operation';
import { mayBeShort, reviseWaiting } from './wait-for-stock';

/** Something that happens to the stock of a thing, and where it comes from. */
export type StockMove = StockThing &
  StockChange &
  Partial<Pick<NewMovement, 'id' | 'why' | 'supplier' | 'paper' | 'fileId' | 'invoiceId' | 'orderId'>>;

/**
 * Moves stock. What keeps no stock is passed over, unless its keeping begins. Called before anything that is handed over is held.
 *
 * @param moves in the order in which they happen
 */
export async function moveStock(tx: Writing, moves: readonly StockMove[]): Promise<void> {
  if (moves.length === 0) return;
  await holdStock(tx, moves);
  const kept = await stockNow(tx, moves);
  const now = new Map<string, Stock & { n: number }>(kept.map((one) => [stockKey(one.itemId, one.optionId), one]));
  const opening = moves.filter(({ kind }) => kind === 'opened');
  const promised = new Map(
    (await promisedNow(tx, opening)).map((one) => [stockKey(one.itemId, one.optionId), one.promised]),
  );
  const looked = new Set(kept.filter(mayBeShort).map(({ itemId }) => itemId));
  const written: NewMovement[] = [];
  for (const { itemId, optionId, kind, quantity, cost, ...about } of moves) {
    const key = stockKey(itemId, optionId);
    const stock = now.get(key);
    // Keeping begins where there is none, and everything else happens where there is some.
    if (!stock || (stock.onHand === null) !== (kind === 'opened')) continue;
    const n = stock.n + 1;
    const change = moved(stock, { kind, quantity, cost, promised: promised.get(key) });
    now.set(key, { ...change.after, n });
    if (mayBeShort(change.after)) looked.add(itemId);
    if (kind === 'closed') looked.add(itemId);
    written.push({
      id: about.id ?? randomUUID(),
      itemId,
      optionId,
      n,
      moved: change,
      byName: tx.name,
      why: about.why ?? '',
      supplier: about.supplier ?? '',
      paper: about.paper ?? '',
      fileId: about.fileId ?? null,
      invoiceId: about.invoiceId ?? null,
      orderId: about.orderId ?? null,
    });
  }
  await insertMovements(tx, written);
  if (looked.size > 0) await reviseWaiting(tx, [...looked]);
}

/** Sales promise goods. */
export async function promise(tx: Writing, promises: readonly StockPromise[]): Promise<void> {
  if (promises.length === 0) return;
  await insertPromises(tx, promises);
  await moveStock(
    tx,
    promises.map((one) => ({ ...one, kind: 'promised' })),
  );
}

/** What sales promised is free again. @param ids of the invoices or the orders */
export const freePromised = async (tx: Writing, ids: readonly string[]): Promise<void> =>
  moveStock(
    tx,
    (await takePromises(tx, ids)).map((one) => ({ ...one, kind: 'freed' })),
  );

/** What sales promised leaves the stock. @param ids of the invoices or the orders */
export const sellPromised = async (tx: Writing, ids: readonly string[]): Promise<void> =>
  moveStock(
    tx,
    (await takePromises(tx, ids)).map((one) => ({ ...one, kind: 'sold' })),
  );

/** What had left the stock is there again, and promised: its payment was taken back. */
export async function promiseAgain(tx: Writing, promises: readonly StockPromise[]): Promise<void> {
  await insertPromises(tx, promises);
  await moveStock(
    tx,
    promises.map((one) => ({ ...one, kind: 'unsold' })),
  );
}

/** Goods of a sale come back into the stock. */
export const bringBack = (
  tx: Writing,
  goods: readonly Goods[],
  about: Pick<StockMove, 'why' | 'invoiceId' | 'orderId'>,
): Promise<void> =>
  moveStock(
    tx,
    goods.map((one) => ({ ...one, ...about, kind: 'returned' })),
  );

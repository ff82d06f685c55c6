/** The one way in which stock changes: held, worked out, written into its log, and sales that wait for it looked at. */
import { randomUUID } from 'node:crypto';
import { stockKey } from '@/core/item/item';
import { scaledCount } from '@/core/stock/available';
import { type Comeback, comesBack } from '@/core/stock/comeback';
import { moved, type Stock, type StockChange } from '@/core/stock/movement';
import { type Goods, insertPromises, type StockPromise, takePromises } from '@/db/items';
import {
  comebacksOf,
  holdStock,
  insertComebacks,
  insertMovements,
  type NewMovement,
  promisedNow,
  type SaidComeback,
  type StockThing,
  stockNow,
} from '@/db/stock';
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

/** Of which sale goods are; neither for what was sent without one. */
type OfSale = Partial<Pick<NewMovement, 'invoiceId' | 'orderId'>>;

/** What is said of goods of a sale beside what was said before; how much of each that brings into the stock. */
async function sayComeback(
  tx: Writing,
  goods: readonly Goods[],
  { invoiceId = null, orderId = null }: OfSale,
  by: Comeback['by'],
): Promise<Goods[]> {
  const saleId = invoiceId ?? orderId;
  if (!saleId || goods.length === 0) return [...goods];
  await holdStock(tx, goods);
  const known = [...(await comebacksOf(tx, saleId))];
  const fresh: SaidComeback[] = [];
  const came: Goods[] = [];
  for (const { itemId, optionId, quantity } of goods) {
    const before = known.filter((one) => one.itemId === itemId && one.optionId === optionId);
    const said = { itemId, optionId, by, quantity };
    came.push({ itemId, optionId, quantity: comesBack(before, said) });
    known.push(said);
    fresh.push(said);
  }
  await insertComebacks(tx, { invoiceId, orderId }, fresh);
  return came.filter(({ quantity }) => scaledCount(quantity) > 0n);
}

/** Goods of a sale go out once more in exchange for what came back: what comes back then is another piece. */
export const noteSentAgain = async (tx: Writing, goods: readonly Goods[], of: OfSale): Promise<void> =>
  void (await sayComeback(tx, goods, of, 'sent-again'));

/**
 * Goods of a sale come back into the stock. Whoever saw them and whoever gave money for them mean the same goods: they come in once.
 *
 * @param by whether somebody has them in hand, or money was given back with them
 */
export async function bringBack(
  tx: Writing,
  goods: readonly Goods[],
  { why, ...of }: OfSale & { readonly why: string },
  by: Exclude<Comeback['by'], 'sent-again'>,
): Promise<void> {
  const came = await sayComeback(tx, goods, of, by);
  await moveStock(
    tx,
    came.map((one) => ({ ...one, ...of, why, kind: 'returned' })),
  );
}

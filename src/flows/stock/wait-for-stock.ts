/** Paid sales wait until what they want lies on the shelf, and can be packed as soon as it does. */
import { stockKey } from '@/core/item/item';
import { scaledCount } from '@/core/stock/available';
import { onShelf, type ShelfWish, waitingForStock } from '@/core/stock/shelf';
import { goodsOfSales, type OpenWish, openWishes, updateBlocks } from '@/db/handovers';
import type { Tx } from '@/db/pool';
import { type KeptStock, onTheWayOut, type StockThing, stockNow } from '@/db/stock';

const keyOf = ({ itemId, optionId }: StockThing): string => stockKey(itemId, optionId);

const wishesOf = (lines: readonly OpenWish[]): ShelfWish[] => {
  const wishes = new Map<string, { id: string; goods: { key: string; quantity: string }[] }>();
  for (const line of lines) {
    const wish = wishes.get(line.id) ?? { id: line.id, goods: [] };
    wish.goods.push({ key: keyOf(line), quantity: line.quantity });
    wishes.set(line.id, wish);
  }
  return [...wishes.values()];
};

/** Nobody can be short of what covers all that is promised of it. */
export const mayBeShort = ({ onHand, promised }: Pick<KeptStock, 'onHand' | 'promised'>): boolean =>
  onHand !== null && scaledCount(onHand) < scaledCount(promised);

/**
 * Looks anew at which open sales of these items wait for stock, and which can be packed. The items are held already, since what lies
 * there must not change meanwhile.
 */
export async function reviseWaiting(tx: Tx, itemIds: readonly string[]): Promise<void> {
  const own = await openWishes(tx, itemIds);
  if (own.length === 0) return;
  // Whether one goes depends on the queue before everything that it wants.
  const wanted = [...new Set(own.map(({ itemId }) => itemId))];
  const lines = wanted.every((id) => itemIds.includes(id)) ? own : await openWishes(tx, wanted);
  const things = [...new Map(lines.map((line) => [keyOf(line), line])).values()];
  const stock = await stockNow(tx, things);
  const out = await onTheWayOut(tx, things);
  const shelf = new Map(
    stock.flatMap((one) =>
      one.onHand === null
        ? []
        : [
            [
              keyOf(one),
              onShelf(one.onHand, out.get(keyOf(one)) ?? { soldNotPacked: '0', packedNotSold: '0' }),
            ] as const,
          ],
    ),
  );
  const waiting = waitingForStock(wishesOf(lines), shelf);
  const blockOf = new Map(own.map(({ id, block }) => [id, block]));
  const ids = [...blockOf.keys()];
  await change(
    tx,
    ids.filter((id) => waiting.has(id) && blockOf.get(id) === ''),
    'no-stock',
  );
  await change(
    tx,
    ids.filter((id) => !waiting.has(id) && blockOf.get(id) === 'no-stock'),
    '',
  );
}

const change = async (tx: Tx, ids: readonly string[], block: '' | 'no-stock'): Promise<void> => {
  if (ids.length > 0) await updateBlocks(tx, ids, block);
};

/** The same for what sales hand over, where any of it may be short. @param ids of the invoices or the orders */
export async function reviseSales(tx: Tx, ids: readonly string[]): Promise<void> {
  const goods = await goodsOfSales(tx, ids);
  if (goods.length === 0) return;
  const short = (await stockNow(tx, goods)).filter(mayBeShort);
  if (short.length > 0) await reviseWaiting(tx, [...new Set(short.map(({ itemId }) => itemId))]);
}

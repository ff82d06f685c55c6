/** Where the keeping of an item's stock begins and ends, as its form says. */
import { type Item, stockKey } from '@/core/item/item';
import { typedDecimal } from '@/core/money/typed';
import { scaledCount } from '@/core/stock/available';
import { costText } from '@/core/stock/movement';
import { stockNow } from '@/db/stock';
import type { Writing } from '@/flows/door/operation';
import { moveStock, type StockMove } from './move-stock';

/** What an item's cost, as it is typed there, says of the stock with which its keeping begins; empty where it says nothing. */
const costOf = ({ cost }: Pick<Item, 'cost'>): string => costText(typedDecimal(cost) ?? '') ?? '';

/**
 * Begins, or ends, the keeping of stock as items say. How many there are of what is kept already is no matter of the form, which may
 * have been opened before the last sale: it comes by receipts, sales and counts.
 *
 * @param why where what is kept already is counted as it is typed: by a program, which says how many there are now
 */
export async function keepStock(tx: Writing, items: readonly Item[], why = ''): Promise<void> {
  const typed = items.flatMap((item) => [
    { itemId: item.id, optionId: null, onHand: item.onHand, cost: costOf(item) },
    ...item.options.map((option) => ({
      itemId: item.id,
      optionId: option.id,
      onHand: option.onHand,
      cost: costOf(item),
    })),
  ]);
  const kept = new Map((await stockNow(tx, typed)).map((one) => [stockKey(one.itemId, one.optionId), one.onHand]));
  await moveStock(
    tx,
    typed.flatMap(({ itemId, optionId, onHand, cost }): StockMove[] => {
      const there = kept.get(stockKey(itemId, optionId)) ?? null;
      if (there === null) return onHand === null ? [] : [{ itemId, optionId, kind: 'opened', quantity: onHand, cost }];
      if (onHand === null) return [{ itemId, optionId, kind: 'closed', quantity: '0' }];
      if (!why || scaledCount(onHand) === scaledCount(there)) return [];
      return [{ itemId, optionId, kind: 'counted', quantity: onHand, why }];
    }),
  );
}

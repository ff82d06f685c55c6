/** What people do to the stock: receive, count, throw away. Each press is done once, however often it arrives. */
import { stockKey } from '@/core/item/item';
import { scaledCount } from '@/core/stock/available';
import { onHandCounted, onShelf } from '@/core/stock/shelf';
import { holdStock, movedOf, onTheWayOut, type StockThing, stockNow } from '@/db/stock';
import { idFor } from '@/flows/door/id-for';
import { desk } from '@/flows/door/operation';
import { Refusal } from '@/flows/door/refusal';
import { moveStock } from './move-stock';

/** Goods as they came: how many, and what one of them cost in major units of the business's currency; empty where that is not known. */
export type ReceivedLine = StockThing & { readonly quantity: string; readonly cost: string };

/** Where they came from: the supplier, the number of its paper, and the paper itself. */
export type ReceivedWith = {
  readonly supplier: string;
  readonly paper: string;
  readonly fileId: string | null;
};

/** The movement that a press makes of its line: the same press makes it once. */
const movementId = (pressKey: string, at: number): string => idFor(`stock ${pressKey} ${at}`);

/** @throws Refusal `no-stock-kept` where one of them keeps no stock */
async function requireKept(tx: Parameters<typeof stockNow>[0], things: readonly StockThing[]): Promise<void> {
  const kept = await stockNow(tx, things);
  const known = new Set(kept.filter(({ onHand }) => onHand !== null).map((one) => stockKey(one.itemId, one.optionId)));
  if (things.some(({ itemId, optionId }) => !known.has(stockKey(itemId, optionId)))) throw new Refusal('no-stock-kept');
}

/** Takes goods in. @throws Refusal `no-stock-kept`, `nothing-to-book` */
export const receiveStock = desk('pack').turn(
  async (tx, pressKey: string, lines: readonly ReceivedLine[], from: ReceivedWith): Promise<void> => {
    if (lines.length === 0 || lines.some(({ quantity }) => scaledCount(quantity) <= 0n))
      throw new Refusal('nothing-to-book');
    await holdStock(tx, lines);
    if ((await movedOf(tx, [movementId(pressKey, 0)])).size > 0) return;
    await requireKept(tx, lines);
    await moveStock(
      tx,
      lines.map((line, at) => ({ ...line, ...from, id: movementId(pressKey, at), kind: 'received' })),
    );
  },
);

/** A thing as somebody counted it, and what should have lain there when they began. */
export type CountedLine = StockThing & { readonly counted: string; readonly expected: string };

/** What was not booked, since goods went or came while it was counted: what should lie there now. */
export type MovedMeanwhile = StockThing & { readonly expected: string };

/**
 * Books what was counted on the shelves. What is sold and not packed lies there too, and what went out on account does not; a sale while
 * one counts changes nothing there. What was packed, received or counted by somebody else meanwhile is not booked, but told.
 *
 * @throws Refusal `no-stock-kept`, `nothing-to-book`
 */
export const countStock = desk('pack').turn(
  async (tx, pressKey: string, lines: readonly CountedLine[], why: string): Promise<MovedMeanwhile[]> => {
    if (lines.length === 0) throw new Refusal('nothing-to-book');
    await holdStock(tx, lines);
    await requireKept(tx, lines);
    const stock = new Map((await stockNow(tx, lines)).map((one) => [stockKey(one.itemId, one.optionId), one]));
    const out = await onTheWayOut(tx, lines);
    const looked = lines.map((line, at) => {
      const key = stockKey(line.itemId, line.optionId);
      const away = out.get(key) ?? { soldNotPacked: '0', packedNotSold: '0' };
      const expected = onShelf(stock.get(key)?.onHand ?? '0', away);
      return { line, id: movementId(pressKey, at), away, expected };
    });
    const done = await movedOf(
      tx,
      looked.map(({ id }) => id),
    );
    const same = ({ line, expected, id }: (typeof looked)[number]) =>
      done.size > 0 ? done.has(id) : scaledCount(line.expected) === scaledCount(expected);
    await moveStock(
      tx,
      looked
        .filter((one) => done.size === 0 && same(one))
        .map(({ line: { itemId, optionId, counted }, id, away }) => ({
          ...{ id, itemId, optionId, why, kind: 'counted' as const },
          quantity: onHandCounted(counted, away),
        })),
    );
    return looked
      .filter((one) => !same(one))
      .map(({ line: { itemId, optionId }, expected }) => ({ itemId, optionId, expected }));
  },
);

/** Takes out what is broken, lost or used by the business itself. @throws Refusal `no-stock-kept`, `nothing-to-book` */
export const throwAway = desk('pack').turn(
  async (tx, pressKey: string, { itemId, optionId }: StockThing, quantity: string, why: string): Promise<void> => {
    if (scaledCount(quantity) <= 0n) throw new Refusal('nothing-to-book');
    const thing = { itemId, optionId };
    await holdStock(tx, [thing]);
    const id = movementId(pressKey, 0);
    if ((await movedOf(tx, [id])).size > 0) return;
    await requireKept(tx, [thing]);
    await moveStock(tx, [{ ...thing, id, kind: 'thrown-away', quantity, why }]);
  },
);

import { countText, scaledCount } from './available';

/** What sales have to do with a shelf: paid and not packed yet, and packed on account and not paid yet; decimals. */
export type OnTheWayOut = { readonly soldNotPacked: string; readonly packedNotSold: string };

/**
 * What a hand finds on the shelf. What is sold leaves the stock when it is paid and lies there until it is packed; what goes out on
 * account is packed before it is paid.
 */
export const onShelf = (onHand: string, { soldNotPacked, packedNotSold }: OnTheWayOut): string =>
  countText(scaledCount(onHand) + scaledCount(soldNotPacked) - scaledCount(packedNotSold));

/** What is on hand when somebody has counted the shelf. */
export const onHandCounted = (shelf: string, { soldNotPacked, packedNotSold }: OnTheWayOut): string =>
  countText(scaledCount(shelf) - scaledCount(soldNotPacked) + scaledCount(packedNotSold));

/** A sale that wants goods from the shelf, by stock key, in the order in which they became ready. */
export type ShelfWish = {
  readonly id: string;
  readonly goods: readonly { readonly key: string; readonly quantity: string }[];
};

/**
 * The sales that have to wait for stock. First come, first served: whoever waits keeps what there is of it, so that nobody who asks for
 * much is overtaken for ever by those who ask for little.
 *
 * @param shelf what lies there by stock key; a key that is absent keeps no stock
 */
export function waitingForStock(wishes: readonly ShelfWish[], shelf: ReadonlyMap<string, string>): Set<string> {
  const left = new Map([...shelf].map(([key, count]) => [key, scaledCount(count)]));
  const waiting = new Set<string>();
  for (const { id, goods } of wishes)
    for (const { key, quantity } of goods) {
      const there = left.get(key);
      if (there === undefined) continue;
      const much = scaledCount(quantity);
      if (much > there) waiting.add(id);
      left.set(key, there - much);
    }
  return waiting;
}

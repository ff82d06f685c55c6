/** A card as far as it matters in which order it is tried; `usable` unless the bank said that it never works, or it was taken away. */
type Tried = { readonly id: string; readonly customerId: string; readonly usable: boolean };

/** A plan as far as its cards matter: its own in their order, none for all of the customer's in theirs. */
type OfCards = { readonly customerId: string; readonly cardIds: readonly string[] };

/**
 * The cards that a plan's charges try, in order.
 *
 * @param cards the customers' cards in the customers' order
 */
export function cardsTried({ customerId, cardIds }: OfCards, cards: readonly Tried[]): string[] {
  const usable = cards.filter((card) => card.customerId === customerId && card.usable).map(({ id }) => id);
  return cardIds.length === 0 ? usable : cardIds.filter((id) => usable.includes(id));
}

/** A plan's cards with one that is tried first from now on. */
export const withFirst = (cardIds: readonly string[], first: string): string[] => [
  first,
  ...cardIds.filter((id) => id !== first),
];

import { leastOf } from '../money/money';
import { countText, scaledCount } from './available';

/**
 * Why goods of a sale are said to be there again: somebody saw them (a parcel that came back, a return that was received), money was
 * given back with them, or they went out once more in exchange.
 */
export const COMEBACKS = ['seen', 'given-back', 'sent-again'] as const;
export type Comeback = { readonly by: (typeof COMEBACKS)[number]; readonly quantity: string };

/** How much of something of a sale is there again: who sees it and who gives money for it mean the same goods, whoever is first. */
function thereAgain(said: readonly Comeback[]): bigint {
  const sum = (by: Comeback['by']) =>
    said.reduce((all, one) => (one.by === by ? all + scaledCount(one.quantity) : all), 0n);
  const [seen, givenBack] = [sum('seen') - sum('sent-again'), sum('given-back')];
  // The larger of both.
  return seen + givenBack - leastOf(seen, givenBack);
}

/** How much comes into the stock by what is said now, beside all that was said before of the same thing of the same sale; a decimal. */
export function comesBack(before: readonly Comeback[], now: Comeback): string {
  const more = thereAgain([...before, now]) - thereAgain(before);
  return countText(more > 0n ? more : 0n);
}

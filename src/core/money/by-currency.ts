/**
 * What is counted in several currencies, the business's own apart from the others, which stand in the order of their codes. Sums of
 * different currencies are never added up, and none is left out.
 */
export function byCurrency<One extends { readonly currency: string }>(
  list: readonly One[],
  own: string,
): { readonly own: One[]; readonly others: ReadonlyMap<string, One[]> } {
  const others = new Map<string, One[]>();
  for (const one of [...list].sort((a, b) => (a.currency < b.currency ? -1 : a.currency > b.currency ? 1 : 0)))
    if (one.currency !== own) others.set(one.currency, [...(others.get(one.currency) ?? []), one]);
  return { own: list.filter(({ currency }) => currency === own), others };
}

/** Those of a few that add up to a sum: the fewest first, the oldest first among them; null where none do. */
export function addingUp<Thing extends { readonly due: bigint }>(
  things: readonly Thing[],
  sum: bigint,
): Thing[] | null {
  const most = Math.min(things.length, 6);
  const all = things.reduce((total, { due }) => total + due, 0n);
  if (things.length > 0 && all === sum) return [...things];
  for (let size = 1; size <= most; size += 1) {
    const found = pick(things, 0, size, sum);
    if (found) return found;
  }
  return null;
}

function pick<Thing extends { readonly due: bigint }>(
  things: readonly Thing[],
  from: number,
  size: number,
  sum: bigint,
): Thing[] | null {
  if (size === 0) return sum === 0n ? [] : null;
  for (let at = from; at <= things.length - size; at += 1) {
    const thing = things[at] as Thing;
    if (thing.due > sum) continue;
    const rest = pick(things, at + 1, size - 1, sum - thing.due);
    if (rest) return [thing, ...rest];
  }
  return null;
}

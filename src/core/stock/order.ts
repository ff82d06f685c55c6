import { countText, scaledCount } from './available';

/** Days over which sales are looked at when it is said how much to order. */
export const SALES_DAYS = 30;

const UNIT = 10_000n;

/**
 * How much to order of what runs low: so much that its mark, and what was sold in the last thirty days above it, can be promised again;
 * whole units, at least one. Nothing where enough is there.
 *
 * @param available on hand less promised @param sold in the last `SALES_DAYS` days
 */
export function toOrder({
  available,
  lowAt,
  sold,
}: {
  readonly available: string;
  readonly lowAt: string | null;
  readonly sold: string;
}): string {
  const there = scaledCount(available);
  const mark = lowAt === null ? 0n : scaledCount(lowAt);
  if (lowAt === null ? there >= 0n : there > mark) return '0';
  const wanted = mark + (lowAt === null ? 0n : scaledCount(sold)) - there;
  const whole = (wanted + UNIT - 1n) / UNIT;
  return countText((whole > 0n ? whole : 1n) * UNIT);
}

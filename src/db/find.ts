import type { Found } from '@/core/find/found';
import type { Db } from './pool';
import { likePattern, many, sql } from './sql';

/** What is looked for: what was typed, in small letters; as a card's last digits, and as a sum in minor units, where it may be that. */
export type Typed = { readonly typed: string; readonly digits: string | null; readonly amountMinor: bigint | null };

/** Whatever holds the words, at most so many of each kind, in no order. */
export function everythingMatching(db: Db, { typed, digits, amountMinor }: Typed, most: number): Promise<Found[]> {
  const words = typed.split(/\s+/).filter(Boolean);
  const [first = '%', second = '%', third = '%'] = words.map(likePattern);
  const brief = words.every((word) => word.length < 3);
  return many(
    db,
    sql`select kind, id, name, number, about, state, amount_minor as "amountMinor", currency, at
        from everything_matching(${first}, ${second}, ${third}, ${likePattern(typed)}, ${typed}, ${brief}, ${digits}, ${amountMinor}, ${most})`,
  );
}

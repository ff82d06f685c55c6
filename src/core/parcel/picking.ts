import { decimalText, scaledDecimal } from '../money/decimal';
import type { PickRow } from './slip';

const SCALE = 4;

/** Something that goes into a parcel, and where it lies; an empty shelf for what nobody said of. */
export type Picked = {
  readonly shelf: string;
  readonly key: string;
  readonly what: string;
  readonly quantity: string;
  readonly name: string;
};

/** Shelves as people count them: `A 2` before `A 10`; what lies nowhere comes last. */
const byShelf = (one: string, other: string): number => {
  if (one === '' || other === '') return one === other ? 0 : one === '' ? 1 : -1;
  return one.localeCompare(other, 'en', { numeric: true });
};

/** What is taken from the shelves for many parcels: each thing once, with how many in all and for whom. */
export function pickRows(picked: readonly Picked[]): PickRow[] {
  const rows = new Map<string, { shelf: string; what: string; sum: bigint; parcels: Map<string, bigint> }>();
  for (const { shelf, key, what, quantity, name } of picked) {
    const row = rows.get(`${shelf}\n${key}`) ?? { shelf, what, sum: 0n, parcels: new Map<string, bigint>() };
    const count = scaledDecimal(quantity, SCALE, 'bad_quantity', 'quantity');
    row.sum += count;
    row.parcels.set(name, (row.parcels.get(name) ?? 0n) + count);
    rows.set(`${shelf}\n${key}`, row);
  }
  return [...rows.values()]
    .sort((one, other) => byShelf(one.shelf, other.shelf) || one.what.localeCompare(other.what, 'en'))
    .map(({ shelf, what, sum, parcels }) => ({
      shelf,
      what,
      quantity: decimalText(sum, SCALE),
      parcels: [...parcels].map(([name, count]) => ({ name, quantity: decimalText(count, SCALE) })),
    }));
}

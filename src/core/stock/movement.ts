import { isCurrency, minorDigits } from '../money/currency';
import { decimalText, powerOfTen, roundedQuotient, scaledDecimal } from '../money/decimal';
import { countText, scaledCount } from './available';

/**
 * What can happen to the stock of an item or of one of its options. `unsold` undoes a sale whose payment was taken back; with `opened`
 * and `closed` its keeping begins and ends.
 */
export const MOVEMENTS = [
  'opened',
  'received',
  'counted',
  'promised',
  'freed',
  'sold',
  'unsold',
  'returned',
  'thrown-away',
  'closed',
] as const;
export type MovementKind = (typeof MOVEMENTS)[number];

export const MOVEMENT_WORDS: Readonly<Record<MovementKind, string>> = {
  opened: 'Stock kept from here on',
  received: 'Received',
  counted: 'Counted',
  promised: 'Promised',
  freed: 'Free again',
  sold: 'Sold',
  unsold: 'Sale undone',
  returned: 'Came back',
  'thrown-away': 'Thrown away',
  closed: 'Stock not kept any more',
};

/**
 * What there is of something: decimals in its unit, `onHand` null where no stock is kept. `averageCost` is what one cost on average, in
 * major units of the business's currency with at most six decimals; empty where nobody said.
 */
export type Stock = {
  readonly onHand: string | null;
  readonly promised: string;
  readonly averageCost: string;
};

/**
 * What happens: `quantity` above 0; for `counted` and `opened` what there is now, with its sign. `cost` is of one, empty where not known.
 * With `opened` comes what is promised already.
 */
export type StockChange = {
  readonly kind: MovementKind;
  readonly quantity: string;
  readonly cost?: string;
  readonly promised?: string;
};

/** A change as the log has it: by how much it moved what is on hand and what is promised, and what there was after it. */
export type Moved = {
  readonly kind: MovementKind;
  readonly onHandBy: string;
  readonly promisedBy: string;
  readonly cost: string;
  readonly after: Stock;
};

const COST_SCALE = 6;

const scaledCost = (text: string): bigint => scaledDecimal(text, COST_SCALE, 'bad_price', 'cost');

/**
 * What one costs on average after more was received: what was there at its average and what came at its price, by quantity, rounded half
 * away from zero to six decimals. What is below nothing counts as none: what is owed was sold at a cost that is over. A receipt without
 * a price leaves the average; the first price there is holds for all.
 */
export function averageAfter(stock: Stock, quantity: string, cost: string): string {
  if (cost === '') return stock.averageCost;
  const there = stock.onHand === null ? 0n : scaledCount(stock.onHand);
  if (stock.averageCost === '' || there <= 0n) return decimalText(scaledCost(cost), COST_SCALE);
  const more = scaledCount(quantity);
  const worth = there * scaledCost(stock.averageCost) + more * scaledCost(cost);
  return decimalText(roundedQuotient(worth, there + more), COST_SCALE);
}

/**
 * The stock after a change. Goods go at the average and come back at it, a count changes no average: only what is received does.
 *
 * @throws RuleError `bad_quantity` for a quantity that is none, or not above 0 where it must be
 */
export function moved(stock: Stock, { kind, quantity, cost = '', promised: already = '0' }: StockChange): Moved {
  const there = stock.onHand === null ? 0n : scaledCount(stock.onHand);
  const promised = scaledCount(stock.promised);
  const much = scaledCount(quantity);
  const by: Readonly<Record<MovementKind, readonly [onHand: bigint, promised: bigint]>> = {
    opened: [much - there, scaledCount(already) - promised],
    received: [much, 0n],
    counted: [much - there, 0n],
    promised: [0n, much],
    freed: [0n, -much],
    sold: [-much, -much],
    unsold: [much, much],
    returned: [much, 0n],
    'thrown-away': [-much, 0n],
    closed: [-there, -promised],
  };
  const [onHandBy, promisedBy] = by[kind];
  const priced = kind === 'received' || kind === 'opened';
  return {
    kind,
    onHandBy: countText(onHandBy),
    promisedBy: countText(promisedBy),
    cost: priced ? cost : '',
    after: {
      onHand: kind === 'closed' ? null : countText(there + onHandBy),
      promised: countText(promised + promisedBy),
      averageCost: priced ? averageAfter(stock, quantity, cost) : stock.averageCost,
    },
  };
}

/** What lies there is worth at its average cost, in minor units; null where no cost is known. Nothing where less than none is there. */
export function stockWorth({ onHand, averageCost }: Stock, currency: string): bigint | null {
  if (onHand === null || averageCost === '' || !isCurrency(currency)) return null;
  const there = scaledCount(onHand);
  if (there <= 0n) return 0n;
  const scale = powerOfTen(4 + COST_SCALE - minorDigits(currency));
  return roundedQuotient(there * scaledCost(averageCost), scale);
}

/** A cost in the digits of its currency, for a reader: `69.686956` is `69.69`. Empty stays empty. */
export function costShown(cost: string, currency: string): string {
  if (cost === '' || !isCurrency(currency)) return cost;
  const digits = minorDigits(currency);
  return decimalText(roundedQuotient(scaledCost(cost), powerOfTen(COST_SCALE - digits)), digits);
}

/** A cost as somebody typed it that the log can keep: at most six decimals; null where it is none. @param text a plain decimal */
export function costText(text: string): string | null {
  try {
    return decimalText(scaledCost(text), COST_SCALE);
  } catch {
    return null;
  }
}

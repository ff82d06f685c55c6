import { rateTotal, type ServiceRate } from './service';

/** What one parcel costs and what was paid for its delivery, in minor units of one currency; null where it is not known (yet). */
export type ParcelCost = {
  readonly paidMinor: bigint | null;
  readonly rateMinor: bigint | null;
  readonly packagingMinor: bigint;
  readonly insuranceMinor: bigint;
};

/** The cost of a parcel by a service's rate: what a signature costs stands with the rate. */
export const costOf = (
  rate: ServiceRate | null,
  { packagingMinor, paidMinor }: { readonly packagingMinor: number; readonly paidMinor: bigint | null },
): ParcelCost => ({
  paidMinor,
  rateMinor: rate && BigInt(rateTotal(rate) - rate.insuranceMinor),
  packagingMinor: BigInt(packagingMinor),
  insuranceMinor: BigInt(rate?.insuranceMinor ?? 0),
});

/** All of it; null while the rate is not known. */
export const totalCost = ({ rateMinor, packagingMinor, insuranceMinor }: ParcelCost): bigint | null =>
  rateMinor === null ? null : rateMinor + packagingMinor + insuranceMinor;

/** What is over (above 0) or short (below 0); null where either side is not known. */
export const leftOver = (cost: ParcelCost): bigint | null => {
  const total = totalCost(cost);
  return total === null || cost.paidMinor === null ? null : cost.paidMinor - total;
};

/** What a lot comes to: sums of what is known, and how many are not. */
export type LotCost = {
  readonly paidMinor: bigint;
  readonly rateMinor: bigint;
  readonly packagingMinor: bigint;
  readonly insuranceMinor: bigint;
  readonly costMinor: bigint;
  /** What is over or short over those parcels of which both sides are known. */
  readonly leftMinor: bigint;
  /** What goes to the carrier. */
  readonly carrierMinor: bigint;
  /** Parcels whose rate is not known. */
  readonly unknown: number;
};

const NO_COST: LotCost = {
  paidMinor: 0n,
  rateMinor: 0n,
  packagingMinor: 0n,
  insuranceMinor: 0n,
  costMinor: 0n,
  leftMinor: 0n,
  carrierMinor: 0n,
  unknown: 0,
};

/** The costs of a lot. */
export const lotCost = (costs: readonly ParcelCost[]): LotCost =>
  costs.reduce<LotCost>((sum, cost) => {
    const total = totalCost(cost);
    return {
      paidMinor: sum.paidMinor + (cost.paidMinor ?? 0n),
      rateMinor: sum.rateMinor + (cost.rateMinor ?? 0n),
      packagingMinor: sum.packagingMinor + cost.packagingMinor,
      insuranceMinor: sum.insuranceMinor + cost.insuranceMinor,
      costMinor: sum.costMinor + (total ?? cost.packagingMinor),
      leftMinor: sum.leftMinor + (leftOver(cost) ?? 0n),
      carrierMinor: sum.carrierMinor + (total === null ? 0n : total - cost.packagingMinor),
      unknown: sum.unknown + (total === null ? 1 : 0),
    };
  }, NO_COST);

/** How many kinds are named before they are only counted. */
const MOST_NAMED = 3;

/**
 * What makes a lot short, in words: the profiles (or whatever the parcels are named by) of those that are short, each with how many,
 * what costs most first: `two in Case carton and one in Bow tube`. Empty where the lot is not short.
 */
export function shortBecause(
  parcels: readonly { readonly kind: string; readonly cost: ParcelCost }[],
  numberWord: (count: number) => string,
): string {
  if (lotCost(parcels.map(({ cost }) => cost)).leftMinor >= 0n) return '';
  const short = parcels.filter(({ cost }) => (leftOver(cost) ?? 0n) < 0n);
  const kinds = new Map<string, number>();
  for (const { kind } of short) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
  if (kinds.size > MOST_NAMED) return `${numberWord(short.length)} parcels`;
  const lossOf = (kind: string) =>
    short.reduce((sum, one) => (one.kind === kind ? sum + (leftOver(one.cost) ?? 0n) : sum), 0n);
  const named = [...kinds]
    .sort(([one], [other]) => (lossOf(one) < lossOf(other) ? -1 : 1))
    .map(([kind, count]) => `${numberWord(count)} in ${kind}`);
  return named.length < 2 ? (named[0] ?? '') : `${named.slice(0, -1).join(', ')} and ${named.at(-1)}`;
}

/** Rows of a lot in the order in which they are read: what loses most first, what is not known after what is short. */
export const byLoss = <Row extends { readonly cost: ParcelCost }>(rows: readonly Row[]): Row[] =>
  rows
    .map((row, at) => ({ row, at, left: leftOver(row.cost) }))
    .sort((one, other) => {
      const [a, b] = [one.left ?? 0n, other.left ?? 0n];
      return a < b ? -1 : a > b ? 1 : one.at - other.at;
    })
    .map(({ row }) => row);

import type { CalendarDate } from '../dates/calendar-date';
import { inRange } from '../money/money';
import type { BatchSum } from '../payment/day-batch';

/** A day of a payout with what its closing says of the currency; a day on which only partners' parts moved has none. */
export type WorkedDay = { readonly day: CalendarDate; readonly sum: BatchSum | null };

/** What a payout is worked out from, days by channels; minor units. */
export type PayoutTable = {
  /** Channels in their order of first coming. */
  readonly channels: readonly string[];
  readonly rows: readonly {
    readonly day: CalendarDate;
    /** By channel, 0 where nothing came by it. */
    readonly minors: readonly bigint[];
    readonly allMinor: bigint;
  }[];
  readonly totals: readonly bigint[];
  readonly allMinor: bigint;
};

/** The card payments of these days by channel: both ways they add up to the same. */
export function payoutTable(days: readonly WorkedDay[], order: readonly string[]): PayoutTable {
  const found = new Set(days.flatMap(({ sum }) => sum?.channels.map(({ channel }) => channel) ?? []));
  const channels = [
    ...order.filter((channel) => found.has(channel)),
    ...[...found].filter((one) => !order.includes(one)),
  ];
  const rows = days.map(({ day, sum }) => {
    const minors = channels.map((name) => sum?.channels.find(({ channel }) => channel === name)?.salesMinor ?? 0n);
    return { day, minors, allMinor: sum?.salesMinor ?? 0n };
  });
  const totals = channels.map((_, at) => rows.reduce((all, { minors }) => all + (minors[at] ?? 0n), 0n));
  return { channels, rows, totals, allMinor: totals.reduce((all, minor) => all + minor, 0n) };
}

/** From the card payments down to the sum paid out; minor units, what goes off is positive here and taken off. */
export type PayoutWorking = {
  readonly sales: number;
  readonly salesMinor: bigint;
  readonly feesMinor: bigint;
  readonly backs: number;
  readonly backMinor: bigint;
  readonly disputes: number;
  /** What disputes took with their fees, less what won ones gave back. */
  readonly disputedMinor: bigint;
  /** What partners got of these days. */
  readonly partnersMinor: bigint;
  /** What the days come to. */
  readonly daysMinor: bigint;
  readonly reservedMinor: bigint;
  readonly releasedMinor: bigint;
  readonly paidMinor: bigint;
};

/** The lines of a payout of the business, one below the other; they add up to what is paid. */
export function payoutWorking(
  days: readonly WorkedDay[],
  partnersMinor: bigint,
  { reservedMinor, releasedMinor }: { readonly reservedMinor: bigint; readonly releasedMinor: bigint },
): PayoutWorking {
  const sums = days.flatMap(({ sum }) => sum ?? []);
  const all = (of: (sum: BatchSum) => bigint): bigint => inRange(sums.reduce((total, sum) => total + of(sum), 0n));
  const daysMinor = all(({ netMinor }) => netMinor) - partnersMinor;
  return {
    sales: sums.reduce((total, sum) => total + sum.sales, 0),
    salesMinor: all((sum) => sum.salesMinor),
    feesMinor: all((sum) => sum.feesMinor),
    backs: sums.reduce((total, sum) => total + sum.backs, 0),
    backMinor: all((sum) => sum.backMinor),
    disputes: sums.reduce((total, sum) => total + sum.disputes, 0),
    disputedMinor: all((sum) => sum.disputedMinor + sum.disputeFeesMinor),
    partnersMinor,
    daysMinor,
    reservedMinor,
    releasedMinor,
    paidMinor: inRange(daysMinor - reservedMinor + releasedMinor),
  };
}

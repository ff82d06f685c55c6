import { addDays, type CalendarDate } from '@/core/dates/calendar-date';
import { dateInZone, instantInZone } from '@/core/dates/zone';
import type { BatchBack, BatchDispute, BatchSale, ByHand } from '@/core/payment/day-batch';
import type { Business } from '@/db/businesses';
import { backsBetween, byHandBetween, salesBetween } from '@/db/day-batches';
import { disputesBetween } from '@/db/disputes';
import type { Db } from '@/db/pool';

/** What moved in some days, in order of time: at the processor, and by hand. */
export type Movements = {
  readonly sales: readonly (BatchSale & { readonly at: Date })[];
  readonly backs: readonly (BatchBack & { readonly at: Date })[];
  readonly disputes: readonly (BatchDispute & { readonly at: Date })[];
  readonly hand: readonly (ByHand & { readonly at: Date })[];
};

/** When a business's day begins. */
export const midnight = ({ zone }: Business, day: CalendarDate): Date => instantInZone(day, '00:00', zone);

/** What moved from one day to another, both included. */
export async function movements(db: Db, business: Business, from: CalendarDate, to: CalendarDate): Promise<Movements> {
  const [begins, ends] = [midnight(business, from), midnight(business, addDays(to, 1))];
  return {
    sales: await salesBetween(db, begins, ends),
    backs: await backsBetween(db, begins, ends),
    disputes: await disputesBetween(db, begins, ends),
    hand: await byHandBetween(db, begins, ends),
  };
}

/** Of them those of one day. */
export const ofDay = (all: Movements, { zone }: Business, day: CalendarDate): Movements => {
  const isDay = ({ at }: { at: Date }) => dateInZone(at, zone) === day;
  return {
    sales: all.sales.filter(isDay),
    backs: all.backs.filter(isDay),
    disputes: all.disputes.filter(isDay),
    hand: all.hand.filter(isDay),
  };
};

/** Something that moved at the processor, signed: what went out is below 0, a fee that was taken above; minor units. */
export type SignedMove = {
  readonly at: Date;
  readonly paymentId: string;
  readonly kind: 'sale' | BatchBack['kind'] | BatchDispute['kind'];
  readonly currency: string;
  readonly amountMinor: bigint;
  readonly feeMinor: bigint;
};

/** All that moved at the processor, in order of time. */
export const signedMoves = ({ sales, backs, disputes }: Movements): SignedMove[] =>
  [
    ...sales.map((sale) => ({ ...sale, kind: 'sale' as const })),
    ...backs.map((back) => ({ ...back, amountMinor: -back.amountMinor, feeMinor: -back.feeBackMinor })),
    ...disputes.map((one) => {
      const sign = one.kind === 'disputed' ? -1n : 1n;
      return { ...one, amountMinor: sign * one.amountMinor, feeMinor: -sign * one.feeMinor };
    }),
  ].sort((a, b) => a.at.getTime() - b.at.getTime());

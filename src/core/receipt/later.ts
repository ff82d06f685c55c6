import type { CalendarDate } from '../dates/calendar-date';

/** What a repeated payment is charged later, as it was said before the first: sums in minor units, days of the business's zone. */
export type LaterCharges = {
  readonly unit: 'week' | 'month' | 'year';
  readonly every: number;
  /** Each later time, with tax and delivery; without the code and the tip of the first. */
  readonly each: number;
  /** Delivery within it; null where nothing is delivered. */
  readonly delivery: number | null;
  /** How many later ones; null where it goes on. */
  readonly count: number | null;
  /** The next days, at most three, and the last one where there is an end. */
  readonly dates: readonly CalendarDate[];
  readonly last: CalendarDate | null;
  /** Whether the first payment differs: by a code, a tip or delivery that is free once. */
  readonly firstDiffers: boolean;
};

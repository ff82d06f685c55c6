import type { CalendarDate } from '../dates/calendar-date';
import { jsonMinor } from '../money/money';
import type { LaterCharges } from '../receipt/later';
import { type Schedule, scheduledDates } from '../schedule/schedule';
import type { OfferQuote } from './quote';
import type { OfferRhythm } from './repeat';

const DATES_SAID = 3;

/** The days of the later charges: counted from the first payment's own, which is left out. */
export const laterSchedule = (rhythm: OfferRhythm, count: number | null, start: CalendarDate): Schedule => ({
  unit: rhythm.unit,
  every: rhythm.every,
  start,
  ends: count === null ? 'never' : { after: count },
});

/** What is charged later for a quote that is repeated; null for a payment that is not. @param paidOn the day of the first */
export function laterCharges({ later, chargedMinor }: OfferQuote, paidOn: CalendarDate): LaterCharges | null {
  if (!later) return null;
  const { rhythm, count, eachMinor, deliveryMinor } = later;
  const pauses = [{ from: paidOn, to: paidOn }];
  const dates: CalendarDate[] = [];
  let last: CalendarDate | null = null;
  for (const { charged } of scheduledDates(laterSchedule(rhythm, count, paidOn), { pauses })) {
    if (dates.length < DATES_SAID) dates.push(charged);
    else if (count === null) break;
    last = charged;
  }
  return {
    unit: rhythm.unit,
    every: rhythm.every,
    each: jsonMinor(eachMinor),
    delivery: deliveryMinor === null ? null : jsonMinor(deliveryMinor),
    count,
    dates,
    last: count === null ? null : last,
    firstDiffers: chargedMinor !== eachMinor,
  };
}

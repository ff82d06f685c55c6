import { addDays, type CalendarDate, daysBetween, weekday } from '../dates/calendar-date';

/** A day on the horizon; sums in minor units. What came in is certain, what customers are to pay is not. */
export type HorizonDay = {
  readonly on: CalendarDate;
  readonly weekday: number;
  readonly cameIn: bigint;
  readonly due: bigint;
  readonly count: number;
};

/** A week's bracket: Monday to Sunday, cut at the ends and at today. */
export type HorizonWeek = {
  readonly from: CalendarDate;
  readonly to: CalendarDate;
  readonly cameIn: bigint;
  readonly due: bigint;
};

export type Horizon = {
  readonly days: readonly HorizonDay[];
  readonly weeks: readonly HorizonWeek[];
  /** Expected from today to the last day; what is late is not in it. */
  readonly expected: bigint;
  readonly late: bigint;
};

export const DAYS_BACK = 21;
export const DAYS_AHEAD = 42;

type Sum = { readonly on: CalendarDate; readonly count: number; readonly minor: bigint };

/** Money by day, three weeks back and six ahead, in one currency. */
export function horizon(today: CalendarDate, received: readonly Sum[], due: readonly Sum[]): Horizon {
  const cameIn = new Map(received.map((sum) => [sum.on, sum.minor]));
  const open = new Map<CalendarDate, Sum>();
  // Invoices and charges of plans may fall on the same day.
  for (const { on, count, minor } of due) {
    const before = open.get(on);
    open.set(on, { on, count: (before?.count ?? 0) + count, minor: (before?.minor ?? 0n) + minor });
  }
  const days: HorizonDay[] = Array.from({ length: DAYS_BACK + DAYS_AHEAD + 1 }, (_, at) => {
    const on = addDays(today, at - DAYS_BACK);
    const expected = on >= today ? open.get(on) : undefined;
    return {
      on,
      weekday: weekday(on),
      cameIn: cameIn.get(on) ?? 0n,
      due: expected?.minor ?? 0n,
      count: expected?.count ?? 0,
    };
  });
  const weeks: HorizonWeek[] = [];
  for (const day of days) {
    const last = weeks.at(-1);
    const begins = !last || day.weekday === 1 || day.on === today;
    if (begins) weeks.push({ from: day.on, to: day.on, cameIn: day.cameIn, due: day.due });
    else
      weeks[weeks.length - 1] = {
        from: last.from,
        to: day.on,
        cameIn: last.cameIn + day.cameIn,
        due: last.due + day.due,
      };
  }
  return {
    days,
    weeks,
    expected: days.reduce((sum, day) => sum + day.due, 0n),
    late: due.filter(({ on }) => daysBetween(on, today) > 0).reduce((sum, { minor }) => sum + minor, 0n),
  };
}

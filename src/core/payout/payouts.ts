import { bankingDays, type DaysOff } from '../dates/banking-days';
import {
  addDays,
  type CalendarDate,
  dateOfDayNumber,
  dayNumberOf,
  daysInMonth,
  earlierDay,
  weekday,
} from '../dates/calendar-date';
import { inRange } from '../money/money';
import { RuleError } from '../rule-error';
import { percentOf, scaledRate } from '../tally/tally';

/** When money is paid out: each banking day, each such weekday (ISO), or a day of each month, clamped. */
export type PayoutSchedule =
  | { readonly kind: 'daily' }
  | { readonly kind: 'weekly'; readonly weekday: number }
  | { readonly kind: 'monthly'; readonly day: number };

/** What is paid out, in one currency and minor units. */
export type PayoutTerms = DaysOff & {
  readonly schedule: PayoutSchedule;
  /** A day's net is ready on the so many-th banking day after it, 0 to 10. */
  readonly lag?: number;
  /** The smallest sum that is paid out; at least 1. */
  readonly minimum?: bigint;
  /** Percent of a positive day's net that is held back for so many calendar days, 0 to 365. */
  readonly reserve?: { readonly percent: string; readonly days: number };
};

/** What a day brought; also below 0, or 0. */
export type PayoutDay = { readonly day: CalendarDate; readonly net: bigint };

/** A payout: `reserved` and `released` since the one before, `carried` what earlier dates left over of it. */
export type Payout = {
  readonly on: CalendarDate;
  readonly amount: bigint;
  readonly days: readonly CalendarDate[];
  readonly reserved: bigint;
  readonly released: bigint;
  readonly carried: bigint;
};

const whole = (value: number, from: number, to: number): boolean =>
  Number.isInteger(value) && value >= from && value <= to;

function check({ schedule, lag = 1, minimum = 1n, reserve }: PayoutTerms): void {
  if (schedule.kind === 'weekly' && !whole(schedule.weekday, 1, 7))
    throw new RuleError('bad_schedule', 'schedule.weekday: 1 to 7');
  if (schedule.kind === 'monthly' && !whole(schedule.day, 1, 31))
    throw new RuleError('bad_schedule', 'schedule.day: 1 to 31');
  if (!['daily', 'weekly', 'monthly'].includes(schedule.kind))
    throw new RuleError('bad_schedule', 'schedule.kind: daily, weekly or monthly');
  if (!whole(lag, 0, 10)) throw new RuleError('bad_input', 'lag: 0 to 10 banking days');
  if (minimum < 0n) throw new RuleError('bad_input', 'minimum: not below 0');
  if (reserve) {
    scaledRate(reserve.percent, 'reserve.percent');
    if (!whole(reserve.days, 0, 365)) throw new RuleError('bad_input', 'reserve.days: 0 to 365');
  }
}

/** A month's day, clamped. */
function dayOfMonth(year: number, month: number, day: number): CalendarDate {
  return dateOfDayNumber(dayNumberOf(year, month, Math.min(day, daysInMonth(year, month))));
}

/** How far before the first day a payout date may lie that moves to it or later: longer than any run of days off would be. */
const BEFORE_DAYS = 62;

/** The dates of a schedule from about a day on, in order, each once, moved to banking days (`calculation.md` 16). */
export function payoutDates(
  terms: Pick<PayoutTerms, 'schedule'> & DaysOff,
  since: CalendarDate,
  until: CalendarDate,
): CalendarDate[] {
  const { schedule } = terms;
  const banking = bankingDays(terms);
  const dates = new Set<CalendarDate>();
  const add = (nominal: CalendarDate) => {
    const on = banking.from(nominal);
    if (on <= until) dates.add(on);
  };
  const first = addDays(since, -BEFORE_DAYS);
  if (schedule.kind === 'monthly') {
    let [year = 0, month = 0] = first.split('-').map(Number);
    for (;;) {
      const nominal = dayOfMonth(year, month, schedule.day);
      if (nominal > until) break;
      add(nominal);
      month += 1;
      if (month > 12) [year, month] = [year + 1, 1];
      if (year > 9999) break;
    }
  } else {
    for (let day = first; day <= until; day = addDays(day, 1)) {
      if (schedule.kind === 'daily' ? banking.is(day) : weekday(day) === schedule.weekday) add(day);
      if (day === until) break;
    }
  }
  return [...dates].filter((on) => on >= since).sort();
}

/** A part of a day's net that is held back until a date. */
export type Held = { readonly day: CalendarDate; readonly minor: bigint; readonly until: CalendarDate };

/** Where a payee stands between two payout dates: what was counted and not paid, and what is held back. */
export type PayoutState = {
  /** Counted since the last payout. */
  readonly days: readonly CalendarDate[];
  readonly reserved: bigint;
  readonly released: bigint;
  /** What of these days earlier dates left over; also below 0. */
  readonly carried: bigint;
  readonly held: readonly Held[];
};

export const NOTHING_COUNTED: PayoutState = { days: [], reserved: 0n, released: 0n, carried: 0n, held: [] };

/** What a payout date did. */
export type PayoutStep = {
  readonly state: PayoutState;
  /** Held back of the days that were counted on it, and what was released on it. */
  readonly reserved: readonly Held[];
  readonly released: readonly Held[];
  readonly payout: Payout | null;
};

/**
 * One payout date: what is ready is counted, what is to be released is, and the sum is paid out or carried on (`calculation.md` 16).
 *
 * @param ready days that are ready by the date and were not counted yet
 */
export function payoutStep(
  state: PayoutState,
  ready: readonly PayoutDay[],
  { minimum = 1n, reserve }: Pick<PayoutTerms, 'minimum' | 'reserve'>,
  on: CalendarDate,
): PayoutStep {
  const reserved = ready.flatMap(({ day, net }): Held[] => {
    const until = reserve ? addDays(day, reserve.days) : day;
    const minor = reserve && net > 0n && until > on ? percentOf(net, reserve.percent, 'reserve.percent') : 0n;
    return minor > 0n ? [{ day, minor, until }] : [];
  });
  const released = state.held.filter(({ until }) => until <= on);
  const sum = (list: readonly Held[]): bigint => list.reduce((all, { minor }) => all + minor, 0n);
  const net = ready.reduce((all, one) => all + one.net, 0n);
  const amount = inRange(state.carried + net - sum(reserved) + sum(released));
  const days = [...state.days, ...ready.map(({ day }) => day)].sort();
  const since = { days, reserved: state.reserved + sum(reserved), released: state.released + sum(released) };
  const held = [...state.held.filter(({ until }) => until > on), ...reserved];
  if (amount < (minimum > 1n ? minimum : 1n))
    return { state: { ...since, carried: amount, held }, reserved, released, payout: null };
  // What earlier dates left over of this payout is what of it they had counted already.
  const payout = { on, amount, ...since, carried: state.carried };
  return { state: { ...NOTHING_COUNTED, held }, reserved, released, payout };
}

/**
 * Which payouts days lead to, up to a date. What is below the smallest sum, or below 0, is carried on (`calculation.md` 16).
 *
 * @param days in any order, each once
 * @throws RuleError `bad_schedule`, `bad_rate`, `bad_input`, `amount_out_of_range`
 */
export function payouts(
  days: readonly PayoutDay[],
  terms: PayoutTerms,
  until: CalendarDate,
): { readonly payouts: readonly Payout[]; readonly left: bigint } {
  check(terms);
  const { lag = 1 } = terms;
  const banking = bankingDays(terms);
  const sorted = [...days].sort((a, b) => (a.day < b.day ? -1 : 1));
  if (new Set(sorted.map(({ day }) => day)).size < sorted.length)
    throw new RuleError('bad_input', 'days: a day is given twice');
  const all = inRange(sorted.reduce((sum, { net }) => sum + net, 0n));
  const [oldest] = sorted;
  if (!oldest) return { payouts: [], left: 0n };

  const waiting = sorted.map((one) => ({ ...one, ready: banking.after(one.day, lag) }));
  const made: Payout[] = [];
  let state = NOTHING_COUNTED;
  for (const on of payoutDates(terms, earlierDay(oldest.day, until), until)) {
    const count = waiting.findIndex(({ ready }) => ready > on);
    const step = payoutStep(state, waiting.splice(0, count < 0 ? waiting.length : count), terms, on);
    state = step.state;
    if (step.payout) made.push(step.payout);
  }
  return { payouts: made, left: all - made.reduce((sum, { amount }) => sum + amount, 0n) };
}

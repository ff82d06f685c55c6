import { addDays, type CalendarDate, daysInMonth } from '../dates/calendar-date';
import { dueDate } from '../invoice/due';
import type { Paper } from '../paper/paper';
import { RuleError } from '../rule-error';
import { type Schedule, type ScheduledDate, scheduledDates } from '../schedule/schedule';
import { type Decisions, dateKey } from './decisions';
import { instalments, type Leftover } from './instalments';

/** A balance in parts, or the same again every period. */
export const PLAN_KINDS = ['membership', 'instalments'] as const;
export type PlanKind = (typeof PLAN_KINDS)[number];

/** Charged to a card on file, or asked for by invoice every time. */
export type PlanPay = 'card' | 'invoice';

/** What a billing plan charges, and when. Amounts as typed, so that nothing is lost that is not yet right. */
export type PlanTerms = {
  readonly kind: PlanKind;
  /** What the customer reads. */
  readonly name: string;
  /** What is billed: once a period by a membership, in all by instalments. */
  readonly paper: Paper;
  readonly schedule: Schedule;
  /** The first charge is made when the plan starts, and not on the first date. */
  readonly firstNow: boolean;
  /** Membership: once, with the first charge; before tax like the lines. */
  readonly setUp: string;
  /** Membership: the first period costs nothing. */
  readonly freeFirst: boolean;
  /** Instalments: `30%` of the total or `100.00`, charged when the plan starts; empty for none. */
  readonly deposit: string;
  readonly leftover: Leftover;
  readonly pay: PlanPay;
  /** Whether a receipt goes out by mail for every charge. */
  readonly receipts: boolean;
  /** How many days before a charge the customer is told; null for never. */
  readonly noticeDays: number | null;
};

/** What a plan's paper comes to, in minor units with tax: one period (or the whole), and the set-up fee beside it. */
export type PlanSums = {
  readonly eachMinor: bigint;
  readonly setUpMinor: bigint;
  readonly depositMinor: bigint;
  /** What single periods come to for which a person decided another price, by the name of the date. */
  readonly onceMinor?: Readonly<Record<string, bigint>>;
};

/** Why a charge is not on the day, or not for the sum, that the rule alone would give. */
export type ChargeReason =
  | { readonly kind: 'month-end'; readonly wanted: number }
  | { readonly kind: 'weekend'; readonly moved: 'next' | 'previous' }
  | { readonly kind: 'holiday'; readonly moved: 'next' | 'previous' }
  | { readonly kind: 'at-start' }
  | { readonly kind: 'free' }
  | { readonly kind: 'set-up'; readonly minor: bigint }
  | { readonly kind: 'deposit' }
  | { readonly kind: 'by-hand' };

/** One charge as planned; `nominal` is the date by the rule, `chargedOn` the day on which it is made. Minor units. */
export type PlannedCharge = {
  readonly part: 'deposit' | 'period';
  readonly nominal: CalendarDate;
  readonly chargedOn: CalendarDate;
  readonly amountMinor: bigint;
  readonly reasons: readonly ChargeReason[];
};

export type PlanContext = {
  /** The day on which the plan starts (or started); what is charged at the start is charged then. */
  readonly startsOn: CalendarDate;
  readonly holidays: readonly CalendarDate[];
  /** Both ends included. */
  readonly pauses: readonly { readonly from: CalendarDate; readonly to: CalendarDate }[];
  /** What a person decided about single dates. */
  readonly decisions?: Decisions;
};

/** Whether a charge is made as soon as its plan begins. */
export const isAtStart = ({
  part,
  reasons,
}: {
  readonly part: PlannedCharge['part'];
  readonly reasons: readonly { readonly kind: string }[];
}): boolean => part === 'deposit' || reasons.some(({ kind }) => kind === 'at-start');

/** Until when a date that is asked for by invoice is to be paid. */
export const payBy = (terms: PlanTerms, chargedOn: CalendarDate): CalendarDate =>
  dueDate(terms.paper.due, chargedOn) ?? chargedOn;

/** No plan of parts has more of them. */
export const MOST_INSTALMENTS = 520;

/** Why the day of a date is what it is. */
export function dateReasons(
  schedule: Schedule,
  { nominal, charged }: ScheduledDate,
  holidays: ReadonlySet<string>,
): ChargeReason[] {
  const reasons: ChargeReason[] = [];
  const [year, month, day] = nominal.split('-').map(Number) as [number, number, number];
  if (schedule.unit === 'month' || schedule.unit === 'year') {
    const length = daysInMonth(year, month);
    const wanted = (schedule.monthDays ?? [Number(schedule.start.slice(8))]).filter(
      (one): one is number => one !== 'last' && one > length,
    );
    if (day === length && wanted.length > 0) reasons.push({ kind: 'month-end', wanted: Math.max(...wanted) });
  }
  if (charged !== nominal) {
    const moved = charged > nominal ? 'next' : 'previous';
    reasons.push({ kind: holidays.has(nominal) ? 'holiday' : 'weekend', moved });
  }
  return reasons;
}

/** The parts of a balance, one for each date. @throws RuleError `bad_schedule` where the dates never end */
function parts(terms: PlanTerms, sums: PlanSums, count: number): bigint[] {
  return instalments(sums.eachMinor, count, sums.depositMinor, terms.leftover);
}

/**
 * Every charge of a plan, one after the other, as `calculation.md` 7 and 8 have it; what a person decided about a date stays.
 *
 * @throws RuleError `bad_schedule`, `bad_input` for instalments without an end or with more parts than units
 */
export function* plannedCharges(terms: PlanTerms, sums: PlanSums, context: PlanContext): Generator<PlannedCharge> {
  const { decisions = {} } = context;
  for (const charge of chargesByRule(terms, sums, context)) {
    const decision = decisions[dateKey(charge)];
    const once = sums.onceMinor?.[dateKey(charge)];
    if (!decision) yield charge;
    else
      yield {
        ...charge,
        chargedOn: decision.on ?? charge.chargedOn,
        // The set-up fee and a free first period stay what they are.
        amountMinor: once === undefined ? charge.amountMinor : charge.amountMinor - sums.eachMinor + once,
        reasons: decision.on ? [...charge.reasons, { kind: 'by-hand' }] : charge.reasons,
      };
  }
}

function* chargesByRule(terms: PlanTerms, sums: PlanSums, context: PlanContext): Generator<PlannedCharge> {
  const { kind, schedule } = terms;
  const { startsOn, holidays } = context;
  const closed = new Set<string>(holidays);
  const dates = scheduledDates(schedule, { holidays, pauses: context.pauses });
  if (kind === 'instalments') {
    if (schedule.ends === 'never') throw new RuleError('bad_schedule', 'schedule.ends: parts of a balance have an end');
    const all: ScheduledDate[] = [];
    for (const date of dates) {
      if (all.length === MOST_INSTALMENTS) throw new RuleError('bad_schedule', 'schedule.ends: too many parts');
      all.push(date);
    }
    if (sums.depositMinor > 0n)
      yield {
        part: 'deposit',
        nominal: startsOn,
        chargedOn: startsOn,
        amountMinor: sums.depositMinor,
        reasons: [{ kind: 'deposit' }],
      };
    const amounts = all.length > 0 ? parts(terms, sums, all.length) : [];
    for (const [at, date] of all.entries())
      yield period(terms, { startsOn: context.startsOn, closed }, date, { at, amountMinor: amounts[at] ?? 0n });
    return;
  }
  let at = 0;
  for (const date of dates) {
    const first = at === 0;
    const free = first && terms.freeFirst;
    const setUp = first ? sums.setUpMinor : 0n;
    const reasons: ChargeReason[] = [
      ...(free ? [{ kind: 'free' } as const] : []),
      ...(setUp > 0n ? [{ kind: 'set-up', minor: setUp } as const] : []),
    ];
    const amountMinor = (free ? 0n : sums.eachMinor) + setUp;
    yield period(terms, { startsOn: context.startsOn, closed }, date, { at, amountMinor, more: reasons });
    at += 1;
  }
}

function period(
  terms: PlanTerms,
  { startsOn, closed }: { readonly startsOn: CalendarDate; readonly closed: ReadonlySet<string> },
  date: ScheduledDate,
  {
    at,
    amountMinor,
    more = [],
  }: { readonly at: number; readonly amountMinor: bigint; readonly more?: readonly ChargeReason[] },
): PlannedCharge {
  // Also where its day is today: it does not wait for the hour of charging.
  const atStart = at === 0 && terms.firstNow;
  return {
    part: 'period',
    nominal: date.nominal,
    chargedOn: atStart ? startsOn : date.charged,
    amountMinor,
    reasons: [...(atStart ? [{ kind: 'at-start' } as const] : dateReasons(terms.schedule, date, closed)), ...more],
  };
}

/** The first `limit` charges, and whether there are more. */
export function firstCharges(
  terms: PlanTerms,
  sums: PlanSums,
  context: PlanContext,
  limit: number,
): { charges: PlannedCharge[]; more: boolean } {
  const charges: PlannedCharge[] = [];
  for (const charge of plannedCharges(terms, sums, context)) {
    if (charges.length === limit) return { charges, more: true };
    charges.push(charge);
  }
  return { charges, more: false };
}

/** What a plan comes to (`calculation.md` 8, forecast); sums in minor units. An endless plan shows its next twelve. */
export type Forecast = {
  readonly endless: boolean;
  readonly charges: readonly PlannedCharge[];
  readonly count: number;
  readonly totalMinor: bigint;
  readonly first: CalendarDate | null;
  readonly last: CalendarDate | null;
  /** What comes in within 365 days from the start. */
  readonly comingYearMinor: bigint;
  readonly years: readonly { readonly year: string; readonly minor: bigint }[];
  readonly months: readonly { readonly month: string; readonly minor: bigint }[];
};

const NEXT_SHOWN = 12;

/** @throws RuleError as `plannedCharges` */
export function forecast(terms: PlanTerms, sums: PlanSums, context: PlanContext): Forecast {
  const endless = terms.kind === 'membership' && terms.schedule.ends === 'never';
  const yearEnd = addDays(context.startsOn, 365);
  const charges: PlannedCharge[] = [];
  const byMonth = new Map<string, bigint>();
  const byYear = new Map<string, bigint>();
  let [count, totalMinor, comingYearMinor] = [0, 0n, 0n];
  for (const charge of plannedCharges(terms, sums, context)) {
    const within = charge.chargedOn < yearEnd;
    if (endless && !within && charges.length >= NEXT_SHOWN) break;
    if (within) comingYearMinor += charge.amountMinor;
    if (endless ? within : true) {
      const [month, year] = [charge.chargedOn.slice(0, 7), charge.chargedOn.slice(0, 4)];
      byMonth.set(month, (byMonth.get(month) ?? 0n) + charge.amountMinor);
      byYear.set(year, (byYear.get(year) ?? 0n) + charge.amountMinor);
    }
    if (!endless || charges.length < NEXT_SHOWN) charges.push(charge);
    count += 1;
    totalMinor += charge.amountMinor;
    if (count >= 20_000) throw new RuleError('bad_schedule', 'schedule.ends: too many dates');
  }
  const sorted = charges.map(({ chargedOn }) => chargedOn).sort();
  return {
    endless,
    charges,
    count: endless ? charges.length : count,
    totalMinor: endless ? charges.reduce((sum, { amountMinor }) => sum + amountMinor, 0n) : totalMinor,
    first: sorted[0] ?? null,
    last: endless ? null : (sorted.at(-1) ?? null),
    comingYearMinor,
    years: [...byYear].map(([year, minor]) => ({ year, minor })),
    months: [...byMonth].sort(([a], [b]) => (a < b ? -1 : 1)).map(([month, minor]) => ({ month, minor })),
  };
}

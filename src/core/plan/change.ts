import type { CalendarDate } from '../dates/calendar-date';
import type { Schedule } from '../schedule/schedule';
import { isFree, type KnownCharge, lookAhead, type Progress } from './ahead';
import { dateKey } from './decisions';
import { type Forecast, type PlanContext, type PlanSums, type PlanTerms, plannedCharges } from './plan';

/** A schedule without its end: how often, and on which days, whatever is written out of it and what goes without saying. */
function rhythmOf({ unit, every, start, monthDays, weekdays, shift = 'none', weekend = [6, 7] }: Schedule): string {
  const days = unit === 'month' ? (monthDays ?? [Number(start.slice(8))]) : unit === 'week' ? (weekdays ?? []) : [];
  const moved = shift === 'none' ? [] : [...weekend].sort((a, b) => a - b);
  return JSON.stringify([unit, every, start, [...days].map(String).sort(), shift, moved]);
}

/** Whether a plan is charged on other days than before; its end does not count. */
export const isRhythmChanged = (before: Pick<PlanTerms, 'schedule'>, after: Pick<PlanTerms, 'schedule'>): boolean =>
  rhythmOf(before.schedule) !== rhythmOf(after.schedule);

type Sums = Pick<PlanSums, 'eachMinor'>;

/**
 * Whether a change needs the customer's consent anew: the sum rises, the rhythm changes, a card is charged that was not, or it goes on for
 * longer than was agreed to.
 */
export function needsConsent(
  before: { readonly terms: PlanTerms; readonly sums: Sums },
  after: { readonly terms: PlanTerms; readonly sums: Sums },
): boolean {
  if (after.terms.pay !== 'card') return false;
  return (
    after.sums.eachMinor > before.sums.eachMinor ||
    isRhythmChanged(before.terms, after.terms) ||
    before.terms.pay !== 'card' ||
    isLonger(before.terms.schedule.ends, after.terms.schedule.ends)
  );
}

function isLonger(before: Schedule['ends'], after: Schedule['ends']): boolean {
  if (before === 'never') return false;
  if (after === 'never') return true;
  if ('on' in before && 'on' in after) return after.on > before.on;
  if ('after' in before && 'after' in after) return after.after > before.after;
  // An end of another kind: whether it is later only its dates say.
  return true;
}

/**
 * The terms of a running plan as a person wants them from now on. What belongs to its beginning stays; so does whose it is, what kind, and what
 * the composer does not ask for. Parts of a balance keep what they are parts of: their invoice is changed on its own.
 */
export function changedTerms(before: PlanTerms, wished: PlanTerms): PlanTerms {
  const { name, schedule, pay, receipts, noticeDays } = wished;
  const parts = before.kind === 'instalments';
  const anew = isRhythmChanged(before, wished);
  return {
    ...before,
    name,
    schedule,
    pay,
    receipts,
    noticeDays,
    paper: parts
      ? before.paper
      : { ...before.paper, lines: wished.paper.lines, files: wished.paper.files, due: wished.paper.due },
    // Begun on other days it does not begin again: no fee, nothing free, nothing at once.
    ...(anew ? { firstNow: false, setUp: '', freeFirst: false } : {}),
  };
}

/** Why a running plan cannot be changed so, in words; null where it can. @param today the business's day */
export function changeTrouble(before: PlanTerms, after: PlanTerms, today: CalendarDate): string | null {
  if (before.kind !== after.kind) return 'A membership and parts of a balance are not turned into one another.';
  if (before.kind === 'instalments' && before.pay !== after.pay)
    return 'Parts of a balance stay charged to a card, or asked for, as they began.';
  if (isRhythmChanged(before, after) && after.schedule.start < today)
    return 'Other days begin today or later: choose when the new ones begin.';
  return null;
}

/** What a running plan still comes to with other terms: its next dates, and what all of them come to; sums in minor units. */
export function stillToCome(
  plan: Parameters<typeof lookAhead>[0],
  known: readonly KnownCharge[],
  sums: PlanSums,
  context: PlanContext,
): Forecast {
  const settled = known.filter(({ state }) => state !== 'upcoming');
  const { fresh, progress } = lookAhead({ ...plan, state: 'active' }, settled, sums, context);
  const charges = fresh.filter((charge) => !isFree(charge));
  const endless = plan.terms.kind === 'membership' && plan.terms.schedule.ends === 'never';
  // A long plan is not written down to its end, but its end is known.
  const seen = new Set(settled.map(dateKey));
  const days: CalendarDate[] = [];
  for (const charge of endless ? charges : plannedCharges(plan.terms, sums, context))
    if (!isFree(charge) && !seen.has(dateKey(charge))) days.push(charge.chargedOn);
  days.sort();
  const { plannedCount, plannedMinor, chargedCount, chargedMinor }: Progress = progress;
  const count = plannedCount === null ? charges.length : plannedCount - chargedCount;
  return {
    endless,
    charges,
    count,
    totalMinor: plannedMinor === null ? 0n : plannedMinor - chargedMinor,
    first: days[0] ?? null,
    last: endless ? null : (days.at(-1) ?? null),
    comingYearMinor: 0n,
    years: [],
    months: [],
  };
}

import type { CalendarDate } from '../dates/calendar-date';
import type { Charge } from './charge';
import { dateKey } from './decisions';
import { type PlanContext, type PlannedCharge, type PlanSums, type PlanTerms, plannedCharges } from './plan';
import { isCounted, OPEN_STATES, PAID_STATES, type PlanState } from './state';

/** So many charges of a plan stand written down ahead; all parts of a balance do. */
const AHEAD = 13;
/** Beyond this many dates an end is as good as none. */
const FAR = 20_000;

/** What of a charge tells how far its plan has come. */
export type KnownCharge = Pick<Charge, 'part' | 'nominal' | 'chargedOn' | 'amountMinor' | 'state'>;

/** How far a plan has come; sums in minor units, null for a plan without an end. */
export type Progress = {
  readonly chargedMinor: bigint;
  readonly chargedCount: number;
  readonly plannedMinor: bigint | null;
  readonly plannedCount: number | null;
  readonly nextOn: CalendarDate | null;
  readonly refusedCount: number;
  /** The last date by the rule that is written down, where more follow it; null where none do. */
  readonly writtenTo: CalendarDate | null;
};

/** Whether a plan costs nothing on this date: such a charge is settled as soon as it is planned. */
export const isFree = ({ amountMinor }: Pick<PlannedCharge, 'amountMinor'>): boolean => amountMinor === 0n;

/**
 * What a plan charges next, as far ahead as is written down, and how far it has come with that. What is known already stays;
 * a plan that runs and has nothing more to come is over.
 *
 * @param known its charges that are written down
 */
export function lookAhead(
  plan: { readonly terms: PlanTerms; readonly state: PlanState; readonly endsOn: CalendarDate | null } & Progress,
  known: readonly KnownCharge[],
  sums: PlanSums,
  context: PlanContext,
): { fresh: PlannedCharge[]; progress: Progress; over: boolean } {
  const { terms } = plan;
  // A pause that nobody has ended yet goes on for ever: only what is active has dates.
  const active = plan.state === 'active';
  const parts = terms.kind === 'instalments';
  const endless = !parts && terms.schedule.ends === 'never';
  const written = new Set(known.map(dateKey));
  let ahead = known.filter(({ state }) => state === 'upcoming').length;
  const fresh: PlannedCharge[] = [];
  let [restMinor, restCount] = [0n, 0];
  let stopped = false;
  for (const charge of active ? plannedCharges(terms, sums, context) : []) {
    if (written.has(dateKey(charge))) continue;
    if (!parts && ahead >= AHEAD) {
      if (endless || restCount >= FAR) {
        stopped = true;
        break;
      }
      if (isFree(charge)) continue;
      restMinor += charge.amountMinor;
      restCount += 1;
      continue;
    }
    fresh.push(charge);
    if (!isFree(charge)) ahead += 1;
  }
  const all: KnownCharge[] = [
    ...known,
    ...fresh.map((one) => ({ ...one, state: isFree(one) ? 'free' : 'upcoming' }) as const),
  ];
  const inState = (states: readonly string[]) => all.filter(({ state }) => states.includes(state));
  const sumOf = (charges: readonly KnownCharge[]) => charges.reduce((sum, { amountMinor }) => sum + amountMinor, 0n);
  const last = all.reduce<CalendarDate | null>(
    (late, { part, nominal }) => (part === 'period' && (late === null || nominal > late) ? nominal : late),
    null,
  );
  const paid = inState(PAID_STATES);
  const counted = all.filter(({ state }) => isCounted(state));
  const [nextOn = null] = inState(['upcoming'])
    .map(({ chargedOn }) => chargedOn)
    .sort();
  return {
    fresh,
    progress: {
      chargedMinor: sumOf(paid),
      chargedCount: paid.length,
      plannedMinor: !active ? plan.plannedMinor : endless ? null : sumOf(counted) + restMinor,
      plannedCount: !active ? plan.plannedCount : endless ? null : counted.length + restCount,
      nextOn: active ? nextOn : null,
      refusedCount: inState(['refused']).length,
      writtenTo: active && (restCount > 0 || stopped) ? last : null,
    },
    // One that ends on a day runs until then.
    over: active && plan.endsOn === null && inState(OPEN_STATES).length === 0 && restCount === 0,
  };
}

import type { CalendarDate } from '../dates/calendar-date';
import type { Charge } from './charge';
import type { MissedPolicy } from './dunning';

/** What becomes of a charge: it is charged, waits for a person, or is left out. */
export type MissedFate = 'charge' | 'wait' | 'leave-out';

/**
 * Decides the fate of a plan's charges that are due at once. Only where an earlier day was missed: one alone, and those of today, are charged
 * as ever; so is what a person was asked about before, and what was past already when the plan began.
 *
 * @param due a plan's upcoming charges whose time has come @param startsOn the day on which the plan started
 * @returns by the charge's id; those that are not named are charged
 */
export function missedFates(
  due: readonly Pick<Charge, 'id' | 'chargedOn' | 'note' | 'attempts'>[],
  policy: MissedPolicy,
  { startsOn, today }: { readonly startsOn: CalendarDate | null; readonly today: CalendarDate },
): Map<string, MissedFate> {
  const missed = due
    .filter(
      ({ chargedOn, note, attempts }) =>
        attempts === 0 && note?.code !== 'missed' && chargedOn <= today && chargedOn >= (startsOn ?? chargedOn),
    )
    .sort((a, b) => (a.chargedOn < b.chargedOn ? -1 : 1));
  const days = new Set(missed.map(({ chargedOn }) => chargedOn));
  if (days.size < 2 || policy === 'all') return new Map();
  const last = missed.at(-1);
  return new Map(
    missed.map((charge) => [charge.id, policy === 'ask' ? 'wait' : charge === last ? 'charge' : 'leave-out']),
  );
}

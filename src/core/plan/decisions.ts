import type { CalendarDate } from '../dates/calendar-date';
import type { PlannedCharge, PlanTerms } from './plan';

/** What a person decided about one date of a plan: another day, or once another price of the first line, as typed. */
export type Decision = { readonly on?: CalendarDate; readonly price?: string };

/** Decisions by the date that they are about: kept beside the schedule, so that they stay whatever else of the plan changes. */
export type Decisions = Readonly<Record<string, Decision>>;

/** By which name a date of a plan is known whatever becomes of its day. */
export const dateKey = ({ part, nominal }: Pick<PlannedCharge, 'part' | 'nominal'>): string => `${part} ${nominal}`;

/** A plan's decisions with one more, or with a part of an earlier one replaced. */
export const decided = (
  decisions: Decisions,
  date: Pick<PlannedCharge, 'part' | 'nominal'>,
  more: Decision,
): Decisions => ({ ...decisions, [dateKey(date)]: { ...decisions[dateKey(date)], ...more } });

/** The terms as they are billed on a date: with the price that a person decided for it. */
export function termsOn(terms: PlanTerms, decision: Decision | undefined): PlanTerms {
  const [first, ...more] = terms.paper.lines;
  if (decision?.price === undefined || !first) return terms;
  return { ...terms, paper: { ...terms.paper, lines: [{ ...first, price: decision.price }, ...more] } };
}

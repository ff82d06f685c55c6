import type { CalendarDate } from '../dates/calendar-date';
import type { Paper } from '../paper/paper';

/** A date of a plan: what it is named by. */
type NamedDate = { readonly part: string; readonly nominal: CalendarDate };

/** What a person decided about one date of a plan: another day, or once another price of the first line, as typed. */
export type Decision = { readonly on?: CalendarDate; readonly price?: string };

/** Decisions by the date that they are about: kept beside the schedule, so that they stay whatever else of the plan changes. */
export type Decisions = Readonly<Record<string, Decision>>;

/** By which name a date of a plan is known whatever becomes of its day. */
export const dateKey = ({ part, nominal }: NamedDate): string => `${part} ${nominal}`;

/** A plan's decisions with one more, or with a part of an earlier one replaced. */
export const decided = (decisions: Decisions, date: NamedDate, more: Decision): Decisions => ({
  ...decisions,
  [dateKey(date)]: { ...decisions[dateKey(date)], ...more },
});

/** The terms as they are billed on a date: with the price that a person decided for it. */
export function termsOn<Terms extends { readonly paper: Paper }>(terms: Terms, decision: Decision | undefined): Terms {
  const [first, ...more] = terms.paper.lines;
  if (decision?.price === undefined || !first) return terms;
  return { ...terms, paper: { ...terms.paper, lines: [{ ...first, price: decision.price }, ...more] } };
}

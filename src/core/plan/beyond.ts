import { addDays, type CalendarDate } from '../dates/calendar-date';
import { isFree } from './ahead';
import { type PlanContext, type PlannedCharge, type PlanSums, type PlanTerms, plannedCharges } from './plan';

/** A date can be shifted back from so far beyond the end of a span: over a weekend and the days off before it. */
const SHIFTED_BACK = 62;

/**
 * What a running plan charges within a span beyond what stands written down, worked out for whatever span is asked: plans are
 * written down a dozen dates ahead, and a sum over a longer time must not stop there. In order of the day of the charge.
 *
 * @param writtenTo the last date by the rule that is written down; null where none is
 * @param span ends included, by the day of the charge
 * @throws RuleError as `plannedCharges`
 */
export function chargesBeyond(
  terms: PlanTerms,
  sums: PlanSums,
  context: PlanContext,
  writtenTo: CalendarDate | null,
  { from, to }: { readonly from: CalendarDate; readonly to: CalendarDate },
): PlannedCharge[] {
  // Parts of a balance are written down to the last.
  if (terms.kind === 'instalments') return [];
  const last = to < '9999-10-01' ? addDays(to, SHIFTED_BACK) : to;
  const beyond: PlannedCharge[] = [];
  for (const charge of plannedCharges(terms, sums, context)) {
    if (charge.nominal > last) break;
    if (writtenTo !== null && charge.nominal <= writtenTo) continue;
    if (charge.chargedOn < from || charge.chargedOn > to || isFree(charge)) continue;
    beyond.push(charge);
  }
  return beyond.sort((a, b) => (a.chargedOn < b.chargedOn ? -1 : a.chargedOn > b.chargedOn ? 1 : 0));
}

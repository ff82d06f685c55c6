import type { Business } from '@/core/business/business';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { fromToday, shortDate } from '@/core/dates/date-text';
import { jsonMinor } from '@/core/money/money';
import { PLAN_STATE_WORDS } from '@/core/plan/state';
import type { PlanRow } from '@/flows/plan/plan-list';
import type { JsonPlan } from '@/ui/plan/plan-list';

const GROUPS: Readonly<Record<PlanRow['state'], string>> = {
  active: 'Active',
  paused: 'Paused',
  waiting: 'Waiting for card',
  draft: 'Drafts',
  finished: 'Ended',
  cancelled: 'Ended',
};

/** A plan as its list shows it. */
export function jsonPlan(row: PlanRow, business: Business, today: CalendarDate): JsonPlan {
  const share = row.plannedCount ? row.chargedCount / row.plannedCount : row.chargedCount > 0 ? 0.5 : 0;
  const made = row.plannedCount ? `${row.chargedCount} of ${row.plannedCount} charged` : `${row.chargedCount} charged`;
  return {
    id: row.id,
    href: row.state === 'draft' ? `/ask/plans/compose?plan=${row.id}` : `/ask/plans/${row.id}`,
    name: row.customer,
    under: `${row.name}, ${made}`,
    state: row.state === 'draft' ? 'Draft' : PLAN_STATE_WORDS[row.state],
    share,
    minor: jsonMinor(row.chargedMinor),
    currency: row.currency,
    foreign: row.currency !== business.currency,
    when:
      row.refusedCount > 0
        ? 'refused'
        : row.nextOn
          ? `${shortDate(row.nextOn, business.deskLocale)}, ${fromToday(row.nextOn, today)}`
          : '',
    late: row.refusedCount > 0,
    group: GROUPS[row.state],
  };
}

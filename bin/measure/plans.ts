/** What many plans cost beside their charging: the list over all charges, composing. */
import { randomUUID } from 'node:crypto';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { completePaper, newLine } from '@/core/paper/paper';
import { forecast } from '@/core/plan/plan';
import { planReading } from '@/core/plan/sums';
import { upcomingCharges } from '@/flows/plan/upcoming';
import { planTerms } from '../../tests/support/plans';
import { foundHouse } from '../../tests/support/workshop';
import { writePlans } from './plan-rows';
import { report, timedEach } from './report';

/** Measures the plans' side. @param all how many plans the table has */
export async function measurePlans(admin: string, all: number): Promise<void> {
  const house = await foundHouse('Bench plans');
  await writePlans(admin, house, { due: 0, more: all });
  const words = { words: '', state: '', from: '', to: '', notCarried: false } as const;
  await upcomingCharges(house.owner, words, null);
  const first = await timedEach(100, () => upcomingCharges(house.owner, words, null));
  report(`upcoming, first page of ${all} charges`, first.times, first.seconds);
  const setting = { taxes: [], currency: 'USD', pricesIncludeTax: false, home: { country: 'US' }, customer: null };
  const long = {
    ...planTerms(house, '2026-01-05', {
      kind: 'instalments',
      schedule: { unit: 'week', ends: { after: 520 }, shift: 'previous' },
    }),
    paper: completePaper({
      lines: [newLine(randomUUID(), 'piece', { what: 'Cello', quantity: '1', price: '9999.99' })],
    }),
  };
  const context = { startsOn: '2026-01-01' as CalendarDate, holidays: [], pauses: [] };
  const composed = await timedEach(200, async () => {
    const { sums } = planReading(long, setting);
    forecast(long, sums, context);
  });
  report('plan composer, 520 dates', composed.times, composed.seconds);
}

import type { CalendarDate } from '@/core/dates/calendar-date';
import { dueDate } from '@/core/invoice/due';
import { readPaper } from '@/core/invoice/read-paper';
import { datesWithin } from '@/core/invoice/recurring';
import type { Business } from '@/db/businesses';
import { customersByIds } from '@/db/customers';
import type { Db } from '@/db/pool';
import { recurringOf } from '@/db/recurring';
import { taxesOf } from '@/db/taxes';
import { settingFor } from './paper-setting';

/** What recurring invoices that send themselves will ask for within a span, by the day on which it is due; minor units. */
export async function recurringAhead(
  db: Db,
  business: Business,
  { from, to }: { readonly from: CalendarDate; readonly to: CalendarDate },
): Promise<{ on: CalendarDate; currency: string; count: number; minor: bigint }[]> {
  const all = (await recurringOf(db)).filter(({ state, makes }) => state === 'active' && makes === 'send');
  if (all.length === 0) return [];
  const taxes = await taxesOf(db);
  const ids = [...new Set(all.map(({ customerId }) => customerId))];
  const customers = new Map((await customersByIds(db, ids)).map((customer) => [customer.id, customer]));
  return all.flatMap(({ paper, schedule, pauses, nextNominal, customerId }) => {
    const dates = datesWithin(schedule, pauses, nextNominal, to);
    if (dates.length === 0) return [];
    const { tally, document } = readPaper(paper, settingFor(business, taxes, customers.get(customerId) ?? null, paper));
    return dates.flatMap(({ charged }) => {
      const on = dueDate(paper.due, charged) ?? charged;
      return on >= from && on <= to && tally.total > 0n
        ? [{ on, currency: document.currency, count: 1, minor: tally.total }]
        : [];
    });
  });
}

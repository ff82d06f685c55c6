import type { CalendarDate } from '@/core/dates/calendar-date';
import { clockTime, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { dueWords, openGroup } from '@/core/invoice/list';
import { invoiceState, sharePaid } from '@/core/invoice/state';
import { jsonMinor } from '@/core/money/money';
import type { InvoiceRow } from '@/flows/invoice/invoice-list';
import type { ListRow } from '@/ui/list/list-row';

type Place = { readonly zone: string; readonly deskLocale: string; readonly currency: string };

function when(row: InvoiceRow, { zone, deskLocale: locale }: Place, today: CalendarDate): string {
  if (row.stage === 'draft') {
    const on = dateInZone(row.changedAt, zone);
    return `changed ${on === today ? clockTime(row.changedAt, zone) : shortDate(on, locale)}`;
  }
  if (row.settledAt) return shortDate(dateInZone(row.settledAt, zone), locale, { weekday: true });
  return row.dueOn ? dueWords(row.dueOn, today, locale) : '';
}

/** A row as the list shows it: words and plain numbers, for the page and for "Show more" alike. */
export function jsonRow(row: InvoiceRow, place: Place, today: CalendarDate): ListRow {
  const state = invoiceState(row, today);
  const open = row.stage === 'sent' && row.dueMinor > 0n;
  return {
    id: row.id,
    href: row.stage === 'draft' ? `/ask/compose/${row.id}` : `/ask/invoices/${row.id}`,
    name: row.customer ?? 'Nobody chosen yet',
    under: [state, row.number].filter(Boolean).join(' · '),
    state,
    share: sharePaid(row),
    minor: jsonMinor(open ? row.dueMinor : row.totalMinor),
    currency: row.currency,
    foreign: row.currency !== place.currency,
    when: when(row, place, today),
    late: state === 'Overdue',
    group: row.stage === 'draft' ? 'Not sent' : open && row.dueOn ? openGroup(row.dueOn, today) : 'Paid lately',
  };
}

import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { priceMinor } from '@/core/offer/price';
import type { OfferRow } from '@/flows/offer/offers';
import type { ListRow } from '@/ui/list/list-row';
import type { RosetteState } from '@/ui/rosette-geometry';

/** An offer's state for people. */
export const offerState = ({ state, placedAt }: Pick<OfferRow, 'state' | 'placedAt'>): RosetteState =>
  !placedAt ? 'Draft' : state === 'open' ? 'Open' : state === 'paused' ? 'Paused' : 'Closed';

const KINDS = { sum: '', items: 'items', open: 'the payer decides', donation: 'donation' } as const;

/** What an offer asks for, in a few words. */
export function offerAsks({ offer }: Pick<OfferRow, 'offer'>, locale: string): string {
  const { kind, currency, prices, items } = offer;
  if (kind === 'items') return items.length === 1 ? (items[0]?.name ?? '') : `${items.length} items`;
  if (kind !== 'sum') return KINDS[kind];
  const minor = priceMinor(prices[currency], currency);
  return minor === null ? 'no price yet' : moneyText(money(minor, currency), locale);
}

/** An offer as its list shows it: what it has brought in, and from how many. */
export function jsonOffer(
  row: OfferRow,
  place: { zone: string; deskLocale: string; currency: string },
  path: string,
  today: CalendarDate,
): ListRow {
  const state = offerState(row);
  const [most] = row.sums;
  const orders = row.sums.reduce((sum, one) => sum + one.orders, 0);
  const on = dateInZone(row.changedAt, place.zone);
  return {
    id: row.id,
    href: `${path}/${row.id}`,
    name: row.name,
    under: `${state} · ${offerAsks(row, place.deskLocale)}${row.sums
      .filter((sum) => sum !== most && sum.paidMinor > sum.refundedMinor)
      .map(
        (sum) => ` · + ${moneyText(money(BigInt(sum.paidMinor - sum.refundedMinor), sum.currency), place.deskLocale)}`,
      )
      .join('')}`,
    state,
    share: 0,
    minor: (most?.paidMinor ?? 0) - (most?.refundedMinor ?? 0),
    currency: most?.currency ?? place.currency,
    foreign: most !== undefined && most.currency !== place.currency,
    when: orders > 0 ? `${orders} paid` : on === today ? 'today' : shortDate(on, place.deskLocale),
    late: false,
    group: state === 'Draft' ? 'Drafts' : state === 'Open' ? 'Open' : 'Paused and closed',
  };
}

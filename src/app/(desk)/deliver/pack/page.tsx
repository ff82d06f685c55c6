import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { shortDate } from '@/core/dates/date-text';
import { jsonMinor, money } from '@/core/money/money';
import { figureText } from '@/core/money/money-text';
import { byLoss, shortBecause } from '@/core/parcel/cost';
import { numberWord } from '@/core/parcel/lot';
import { measuresOf, weightText } from '@/core/parcel/measure';
import { mayDo } from '@/core/person/rights';
import { type PackDesk as Desk, deliveryPaid, packDesk, paperCosts } from '@/flows/parcel/to-pack';
import { PackDesk } from '@/ui/pack/pack-desk';
import type { PackRows } from '@/ui/pack/pack-list';
import { DeliverTabs } from '../deliver-tabs';
import { jsonLot, jsonPaperRow, jsonToPack } from '../json-pack';

export const metadata: Metadata = { title: 'To pack' };

const rowsOf = ({ rows, next }: Desk['ready']): PackRows => ({
  rows: rows.map(jsonToPack),
  next: next && { key: next.at.toISOString(), id: next.id },
});

/** When customers are told of what lies on the paper, in words. */
function tellsWords({ paper, settings, today, business }: Desk): string {
  const onDay = paper.filter(({ parcel }) => parcel.notice === 'on-day');
  const days = [...new Set(onDay.map(({ parcel }) => parcel.mailOn))].sort();
  const [first] = days;
  if (!settings.tell.left) return 'Customers are not told that parcels leave.';
  if (!first)
    return paper.every(({ parcel }) => parcel.notice === 'held')
      ? 'Customers are told by hand.'
      : 'Customers are told with the first scan.';
  if (days.length > 1) return `Customers are told on their mailing dates at ${settings.tellAt}.`;
  const day = shortDate(first, business.deskLocale, { weekday: true });
  return first === today
    ? `Customers are told today at ${settings.tellAt}, or at once after that.`
    : `Customers are told on ${day} at ${settings.tellAt}, not today.`;
}

export default async function PackPage({ searchParams }: { searchParams: Promise<{ words?: string }> }) {
  const actor = await pageActor('customers');
  const words = String((await searchParams).words ?? '').slice(0, 120);
  const desk = await packDesk(actor, words);
  const { business, paper, ready, blocked } = desk;
  const { deskLocale: locale, currency } = business;
  const sees = mayDo(actor, 'see');
  const costs = sees ? await paperCosts(actor) : null;
  const paid = sees
    ? await deliveryPaid(
        actor,
        [...ready.rows, ...blocked.rows].map(({ id }) => id),
      )
    : {};
  const measures = measuresOf(business.country);
  const shown = (row: (typeof paper)[number]) => jsonPaperRow(row, costs, { locale, measures });
  const sorted = costs
    ? byLoss(
        paper.flatMap((row) => {
          const cost = costs.parcels[row.parcel.id];
          return cost ? [{ row, cost }] : [];
        }),
      ).map(({ row }) => shown(row))
    : paper.map(shown);
  const grams = paper.reduce((sum, row) => sum + row.grams, 0);
  return (
    <>
      <DeliverTabs here="To pack" sums={sees} />
      <PackDesk
        shown={{
          ready: rowsOf(ready),
          blocked: rowsOf(blocked),
          count: desk.count,
          paper: sorted,
          lot: costs ? jsonLot(costs.lot) : null,
          because: costs
            ? shortBecause(
                paper.flatMap(({ parcel, profile }) => {
                  const cost = costs.parcels[parcel.id];
                  return cost ? [{ kind: profile?.name ?? 'without a profile', cost }] : [];
                }),
                numberWord,
              )
            : '',
          weight: weightText(grams, measures, locale),
          tells: tellsWords(desk),
          carrierMinor: costs ? jsonMinor(costs.readyMinor) : null,
          balance: costs ? jsonMinor(costs.balanceMinor) : null,
          paid: Object.fromEntries(
            Object.entries(paid).map(([id, minor]) => [
              id,
              minor === null ? '?' : figureText(money(minor, currency), locale),
            ]),
          ),
          profiles: desk.profiles.map(({ id, name }) => ({ id, name })),
          toPrint: desk.toPrint,
          toDeclare: desk.toDeclare,
          words,
          today: desk.today,
          zone: business.zone,
          home: business.country,
          measures,
          currency,
          locale,
          paperLocale: business.paperLocale,
          labelSheet: desk.settings.labelSheet,
          ownLabel: desk.settings.ownLabel,
          may: {
            pack: !actor.closed && mayDo(actor, 'pack'),
            topUp: mayDo(actor, 'give-back'),
            keepItems: !actor.closed && mayDo(actor, 'records'),
            keepOffers: !actor.closed && mayDo(actor, 'ask'),
          },
        }}
      />
    </>
  );
}

import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { type CarrierStatement, type ComparedEntry, type StatementKind, VERDICT_WORDS } from '@/core/carrier/statement';
import { isCalendarDate } from '@/core/dates/calendar-date';
import { monthText, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { numberLead } from '@/core/parcel/lot';
import { spacedNumber } from '@/core/parcel/number';
import { mayDo } from '@/core/person/rights';
import { type StatementDesk as Desk, parcelHrefs, statementDesk } from '@/flows/parcel/carrier-statements';
import { StatementDesk, type StatementShown } from '@/ui/carrier/statement-desk';
import { DeliverTabs } from '../deliver-tabs';

export const metadata: Metadata = { title: 'Statements of the carrier' };

const KIND: Readonly<Record<StatementKind | 'correction', string>> = {
  'top-up': 'Money put there',
  label: 'Label',
  void: 'Label given back',
  claim: 'Paid for a parcel',
  surcharge: 'Charged afterwards',
  other: 'Other entry',
  correction: 'Booked from a statement',
};

/** What was charged in a month, and what came onto the balance, as they say it. */
function linesOf({ openingMinor, closingMinor, entries }: CarrierStatement): StatementShown['lines'] {
  const sum = (kinds: readonly StatementKind[]) =>
    entries.filter(({ kind }) => kinds.includes(kind)).reduce((all, { minor }) => all + minor, 0);
  const lines = [
    { label: 'Opening', minor: openingMinor },
    { label: 'Money put there', minor: sum(['top-up']) },
    { label: 'Labels', minor: sum(['label']) },
    { label: 'Labels given back', minor: sum(['void']) },
    { label: 'Claims paid', minor: sum(['claim']) },
    { label: 'Charged or credited afterwards', minor: sum(['surcharge', 'other']) },
    { label: 'Closing', minor: closingMinor },
  ];
  return lines.flatMap(({ label, minor }) => (minor === null || minor === 0 ? [] : [{ label, minor }]));
}

function shownEntry(
  { key, theirs, ours, verdict, leftMinor }: ComparedEntry,
  left: readonly string[],
  hrefs: ReadonlyMap<string, string>,
  locale: string,
): StatementShown['entries'][number] {
  const about = theirs ?? ours;
  const number = theirs?.number || ours?.number || '';
  return {
    key,
    what: about ? KIND[about.kind] : '',
    about: [about ? shortDate(about.on, locale) : '', number ? spacedNumber(number) : '', theirs?.words ?? '']
      .filter(Boolean)
      .join(' · '),
    href: hrefs.get(number) ?? '',
    // What is booked by now stands in our books.
    verdict: verdict === 'agrees' || (leftMinor === 0 && verdict !== 'next-month') ? '' : VERDICT_WORDS[verdict],
    theirs: theirs?.minor ?? null,
    ours: ours?.minor ?? null,
    left: leftMinor,
    isLeft: left.includes(key),
  };
}

async function shownOf(
  actor: Awaited<ReturnType<typeof pageActor>>,
  { business, comparison }: Desk,
  kept: NonNullable<Desk['shown']>,
): Promise<StatementShown> {
  const { deskLocale: locale, zone } = business;
  const differing = (comparison?.entries ?? []).filter(({ verdict }) => verdict !== 'agrees');
  const agreeing = (comparison?.entries.length ?? 0) - differing.length;
  const numbers = differing.map(({ theirs, ours }) => theirs?.number || ours?.number || '');
  const hrefs = await parcelHrefs(actor, numbers);
  const open = kept.open;
  const all = agreeing === 1 ? 'One entry agrees' : `${numberLead(agreeing)} entries agree`;
  return {
    month: kept.month,
    name: monthText(kept.month.slice(0, 7), locale),
    says: comparison
      ? open === 0
        ? `${all} with your books${differing.length > 0 ? '; the rest is decided.' : '.'}`
        : `${all} with your books; ${open === 1 ? 'one differs' : `${open} differ`}.`
      : null,
    isGood: open === 0,
    warnings: [
      ...(comparison?.sumMinor ? ['Their own entries do not add up to their closing balance. Ask the carrier.'] : []),
      ...(comparison?.openingMinor
        ? ['They begin the month with another balance than your books: look at the month before.']
        : []),
    ],
    lines: kept.statement ? linesOf(kept.statement) : [],
    entries: differing.map((entry) => shownEntry(entry, kept.left, hrefs, locale)),
    read: kept.readAt
      ? `Read ${shortDate(dateInZone(kept.readAt, zone), locale, { weekday: true })} by ${kept.byName}.`
      : '',
  };
}

export default async function CarrierPage({ searchParams }: { searchParams: Promise<{ month?: string }> }) {
  const actor = await pageActor();
  const { month = '' } = await searchParams;
  const desk = await statementDesk(actor, isCalendarDate(month) ? month : null);
  const { business, months, shown } = desk;
  const { deskLocale: locale, currency } = business;
  const may = (right: Parameters<typeof mayDo>[1]) => !actor.closed && mayDo(actor, right);
  return (
    <>
      <DeliverTabs here="Parcel profiles" sums />
      <StatementDesk
        key={shown?.month ?? ''}
        months={months.map((one) => ({
          month: one.month,
          name: monthText(one.month.slice(0, 7), locale),
          open: one.open,
          state: one.statement === null ? 'to come' : one.open > 0 ? `${one.open} to decide` : 'agrees',
        }))}
        shown={shown && (await shownOf(actor, desk, shown))}
        currency={currency}
        locale={locale}
        may={{ read: may('take'), book: may('give-back') }}
      />
    </>
  );
}

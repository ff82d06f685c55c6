import type { Metadata, Route } from 'next';
import Link from 'next/link';
import { askedOf } from '@/app/asked';
import { shownFirstDay } from '@/app/first-day';
import { pageActor } from '@/app/session';
import { daysBetween } from '@/core/dates/calendar-date';
import { clockTime, dayHeading, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { jsonMinor } from '@/core/money/money';
import { mayDo } from '@/core/person/rights';
import { DAYS_AHEAD } from '@/core/today/horizon';
import { type TodayView, todayView } from '@/flows/day/today';
import { WordsInput } from '@/input/search-input';
import { WhatOpens } from '@/ui/house/what-opens';
import { Amount, Figure } from '@/ui/kit/amount';
import { Empty } from '@/ui/kit/empty';
import { SumsBeside } from '@/ui/kit/sums-beside';
import { GroupHead } from '@/ui/list/list-group';
import { WorkGroups, WorkUnderWay } from '@/ui/today/work-list';
import { CHANNEL_WORDS } from '../money/payments/json-payment';
import { FirstDayView } from './first-day-view';
import { HiddenView } from './hidden-view';
import { TodayHorizon } from './today-horizon';
import { shownRow } from './work-words';

export const metadata: Metadata = { title: 'Today' };

const COUNTS = [
  'Nothing needs',
  'One thing needs',
  'Two things need',
  'Three things need',
  'Four things need',
  'Five things need',
  'Six things need',
];

/** What came in lately, as a cash book: by day, latest first. */
function CameIn({ view }: { view: TodayView }) {
  const { business, today, cameIn } = view;
  const { zone, deskLocale: locale } = business;
  const dated = cameIn.map((payment) => ({ payment, at: payment.settledAt ?? payment.startedAt }));
  const days = [...new Set(dated.map(({ at }) => dateInZone(at, zone)))].slice(0, 5);
  const heading = (on: (typeof days)[number]) => {
    const ago = daysBetween(on, today);
    return ago === 0 ? 'Today' : ago === 1 ? 'Yesterday' : shortDate(on, locale, { weekday: true });
  };
  return (
    <section aria-label="Came in">
      <div className="flex items-baseline justify-between">
        <h2 className="title-section">Came in</h2>
        <Link href="/money/payments" className="link">
          All payments
        </Link>
      </div>
      {days.length === 0 ? (
        <p className="mt-3 text-soft">Nothing yet. Payments appear here the moment they are made.</p>
      ) : null}
      {days.map((on) => (
        <div key={on}>
          <GroupHead name={heading(on)} />
          <ul>
            {dated
              .filter(({ at }) => dateInZone(at, zone) === on)
              .map(({ payment, at }) => (
                <li key={payment.id}>
                  <Link
                    href={`/money/payments/${payment.id}` as Route}
                    className="grid h-[34.5px] grid-cols-[50px_minmax(0,1fr)_auto_84px] items-center gap-2 border-b border-rule hover:bg-[color-mix(in_srgb,var(--rule)_45%,transparent)]"
                  >
                    <span className="text-soft">{clockTime(at, zone)}</span>
                    <span className="private truncate font-serif text-[15.5px] font-medium">{payment.customer}</span>
                    <span className="small text-soft">
                      {CHANNEL_WORDS[payment.channel]} {payment.invoiceId ? payment.subject : ''}
                    </span>
                    <span className="text-right font-serif text-[15.5px] font-medium">
                      {payment.currency === business.currency ? (
                        <Figure minor={jsonMinor(payment.amountMinor)} currency={payment.currency} locale={locale} />
                      ) : (
                        <Amount minor={jsonMinor(payment.amountMinor)} currency={payment.currency} locale={locale} />
                      )}
                    </span>
                  </Link>
                </li>
              ))}
          </ul>
        </div>
      ))}
    </section>
  );
}

export default async function TodayPage({ searchParams }: { searchParams: Promise<object> }) {
  const actor = await pageActor('own');
  if (!mayDo(actor, 'see'))
    return <HiddenView actor={actor} words={(await askedOf(WordsInput, searchParams)).words ?? ''} />;
  const view = await todayView(actor);
  const { business, today, work, horizon } = view;
  const shown = (row: Parameters<typeof shownRow>[0]) => shownRow(row, view, actor);
  const first = await shownFirstDay(actor, business);
  if (first?.isFirst && first.draft)
    return (
      <FirstDayView
        first={first}
        draft={first.draft}
        heading={dayHeading(today, business.deskLocale)}
        business={business}
      />
    );
  const count = work.groups.reduce((all, { rows }) => all + rows.length, 0);
  const setting = { currency: business.currency, locale: business.deskLocale };
  const amount = (minor: bigint) => (
    <Amount minor={jsonMinor(minor)} currency={business.currency} locale={business.deskLocale} />
  );
  return (
    <div className="flex min-h-[calc(100dvh-52px)] flex-col">
      <div className="mx-auto w-full max-w-[1440px] flex-1 px-4 pb-6 sm:px-7">
        <h1 className="title-screen pt-4">{dayHeading(today, business.deskLocale)}</h1>
        <p className="mt-1 font-serif text-[18px]/[26px]">
          {COUNTS[count] ?? `${view.more ? 'More than ' : ''}${count} things need`} a hand.{' '}
          <Link href="/money/payments" className="tally-link font-semibold">
            {amount(view.cameInToday)}
            <SumsBeside sums={view.cameInBeside} locale={business.deskLocale} />
          </Link>{' '}
          has come in today, and{' '}
          <Link href="/ask/invoices" className="tally-link font-semibold">
            {amount(horizon.expected)}
            <SumsBeside sums={view.expectedBeside} locale={business.deskLocale} />
          </Link>{' '}
          is expected in the coming {DAYS_AHEAD / 7} weeks.
        </p>
        <div className="mt-4 grid items-start gap-x-9 gap-y-6 lg:grid-cols-[minmax(0,760fr)_minmax(0,428fr)]">
          <section aria-label="Needs a hand">
            <h2 className="title-section pb-2">Needs a hand</h2>
            <div className="sheet pb-1.5">
              {count === 0 ? (
                <Empty words="Everything is in hand. What is late, refused or not delivered appears here." />
              ) : (
                <WorkGroups
                  groups={work.groups.map(({ group, rows }) => ({ group, rows: rows.map(shown) }))}
                  {...setting}
                />
              )}
            </div>
            {first ? (
              <div className="mt-7">
                <WhatOpens of={first} />
              </div>
            ) : null}
            {work.waits.length > 0 ? <WorkUnderWay rows={work.waits.map(shown)} {...setting} /> : null}
          </section>
          <CameIn view={view} />
        </div>
      </div>
      <TodayHorizon view={view} />
    </div>
  );
}

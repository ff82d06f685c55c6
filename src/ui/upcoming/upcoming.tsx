'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { Button } from '../kit/button';
import { Empty } from '../kit/empty';
import { send } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { ChargesOfDay } from './charges-of-day';
import { ChosenCharges } from './chosen-charges';
import type { JsonCharge } from './json-charge';
import { MonthSheet, type UpcomingDay } from './month-sheet';
import { NewFeedAddress } from './new-feed-address';
import { type UpcomingAsked, upcomingAddress, upcomingQuery } from './upcoming-address';
import { UpcomingFilter } from './upcoming-filter';

type Next = { readonly on: CalendarDate; readonly id: string } | null;

/** All charges of all plans by date, as a list or on a calendar: found, narrowed, marked as carried over, taken out. */
export function Upcoming({
  rows: firstRows,
  next: firstNext,
  days,
  month,
  asked,
  feed,
  currency,
  locale,
  zone,
  today,
  mayAsk,
}: {
  rows: readonly JsonCharge[];
  next: Next;
  days: readonly UpcomingDay[];
  month: string;
  asked: UpcomingAsked;
  /** The address of the private calendar. */
  feed: string;
  currency: string;
  locale: string;
  zone: string;
  today: CalendarDate;
  mayAsk: boolean;
}) {
  const router = useRouter();
  const [rows, setRows] = useState(firstRows);
  const [next, setNext] = useState(firstNext);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);

  const go = ({ month: of = month, ...part }: Partial<UpcomingAsked> & { month?: string }) =>
    router.push(upcomingAddress({ ...asked, ...part }, of, today) as Route);

  async function showMore() {
    if (!next) return;
    setBusy(true);
    const query = upcomingQuery(asked);
    query.set('key', next.on);
    query.set('id', next.id);
    const answer = await send<{ rows: JsonCharge[]; next: Next }>('GET', `/api/upcoming?${query.toString()}`);
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    setRows([...rows, ...answer.value.rows]);
    setNext(answer.value.next);
  }

  async function carry() {
    setBusy(true);
    const answer = await send<{ carried: number }>('POST', '/api/upcoming/carry', { ids: [...chosen] });
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    say(`${answer.value.carried} marked as carried over`);
    setChosen(new Set());
    router.refresh();
    setRows(
      rows.map((row) =>
        chosen.has(row.id) && !row.carried ? { ...row, carried: { at: new Date().toISOString(), by: 'you' } } : row,
      ),
    );
  }

  async function again() {
    setBusy(true);
    const answer = await send<{ charged: number }>('POST', '/api/charges/again', { ids: [...chosen] });
    setBusy(false);
    if (!answer.ok) return sayTrouble(answer.words);
    say(`${answer.value.charged} are being charged again`);
    setChosen(new Set());
    router.refresh();
  }

  const tick = (id: string, ticked: boolean) => {
    const now = new Set(chosen);
    if (ticked) now.add(id);
    else now.delete(id);
    setChosen(now);
  };
  const picked = rows.filter(({ id }) => chosen.has(id));
  const exported = `/files/upcoming?${upcomingQuery(asked).toString()}`;
  const byDay = [...new Set(rows.map(({ on }) => on))];
  return (
    <div className="mx-auto max-w-[1180px] px-4 pb-24 sm:px-7">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 pb-3">
        <h1 className="title-screen flex-1">Upcoming</h1>
        <a className="link" href={exported}>
          As CSV
        </a>
        <Button
          look="link"
          onClick={async () => {
            await navigator.clipboard.writeText(feed);
            say('The address of your private calendar is copied: subscribe to it in your calendar program');
          }}
        >
          Copy calendar address
        </Button>
        {mayAsk ? <NewFeedAddress /> : null}
      </div>
      <UpcomingFilter asked={asked} go={go} />
      {asked.as === 'calendar' ? (
        <MonthSheet
          days={days}
          month={month}
          currency={currency}
          locale={locale}
          today={today}
          onMonth={(one) => go({ month: one })}
          onDay={(on) => go({ as: 'list', from: on, to: on })}
        />
      ) : rows.length === 0 ? (
        <Empty words="No charge like that. Charges of billing plans are listed here, from today on." />
      ) : (
        <>
          {picked.length > 0 && mayAsk ? (
            <ChosenCharges
              picked={picked}
              busy={busy}
              currency={currency}
              locale={locale}
              carry={carry}
              again={again}
              onNone={() => setChosen(new Set())}
            />
          ) : null}
          {byDay.map((on) => (
            <ChargesOfDay
              key={on}
              on={on}
              rows={rows.filter((row) => row.on === on)}
              chosen={chosen}
              currency={currency}
              locale={locale}
              zone={zone}
              onTick={mayAsk ? tick : undefined}
            />
          ))}
          {next ? (
            <Button look="link" className="mt-3" busy={busy} onClick={() => void showMore()} busyWords="Fetching more">
              Show more
            </Button>
          ) : null}
        </>
      )}
    </div>
  );
}

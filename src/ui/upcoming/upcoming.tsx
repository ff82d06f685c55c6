'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dayHeading, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { isDayOrNone } from '@/core/paper/paper';
import { REFUSAL_BRIEF } from '@/core/payment/outcome';
import { CHARGE_STATE_WORDS, CHARGE_STATES, type ChargeState } from '@/core/plan/state';
import { Amount, Figure } from '../amount';
import { DayInput } from '../day-input';
import { Empty } from '../empty';
import { FormDialog } from '../form-dialog';
import { Segment } from '../plan/plan-fields';
import { usePress } from '../press';
import { send, troubleOf } from '../send';
import { say, sayTrouble } from '../toasts';
import type { JsonCharge } from './json-charge';
import { MonthSheet, type UpcomingDay } from './month-sheet';

export type UpcomingAsked = {
  readonly words: string;
  readonly state: string;
  readonly from: string;
  readonly to: string;
  readonly notCarried: boolean;
  readonly as: 'list' | 'calendar';
};

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
  const [words, setWords] = useState(asked.words);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [busy, setBusy] = useState(false);

  const address = (part: Partial<UpcomingAsked> & { month?: string } = {}): string => {
    const all = { ...asked, words, month, ...part };
    const query = new URLSearchParams();
    if (all.words.trim()) query.set('words', all.words.trim());
    if (all.state) query.set('state', all.state);
    if (all.from && all.from !== today) query.set('from', all.from);
    if (all.to) query.set('to', all.to);
    if (all.notCarried) query.set('notCarried', 'yes');
    if (all.as === 'calendar') query.set('as', 'calendar');
    if (all.month !== today.slice(0, 7)) query.set('month', all.month);
    return `/money/upcoming?${query.toString()}`;
  };
  const go = (part: Partial<UpcomingAsked> & { month?: string }) => router.push(address(part) as Route);

  async function showMore() {
    if (!next) return;
    setBusy(true);
    const query = new URLSearchParams(address().split('?')[1]);
    for (const name of ['as', 'month']) query.delete(name);
    if (!query.has('from') && asked.from) query.set('from', asked.from);
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

  const picked = rows.filter(({ id }) => chosen.has(id));
  const sum = picked.reduce((all, { minor }) => all + minor, 0);
  const exported = `/files/upcoming?${new URLSearchParams(
    Object.entries({
      words: asked.words,
      state: asked.state,
      from: asked.from,
      to: asked.to,
      notCarried: asked.notCarried ? 'yes' : '',
    }).filter(([, value]) => value),
  ).toString()}`;
  const byDay = [...new Set(rows.map(({ on }) => on))];
  return (
    <div className="mx-auto max-w-[1180px] px-4 pb-24 sm:px-7">
      <div className="flex flex-wrap items-baseline gap-x-5 gap-y-2 pb-3">
        <h1 className="title-screen flex-1">Upcoming</h1>
        <a className="link" href={exported}>
          As CSV
        </a>
        <button
          type="button"
          className="link"
          onClick={async () => {
            await navigator.clipboard.writeText(feed);
            say('The address of your private calendar is copied: subscribe to it in your calendar program');
          }}
        >
          Copy calendar address
        </button>
        {mayAsk ? <NewFeedAddress /> : null}
      </div>
      <form
        className="flex flex-wrap items-end gap-3 border-t border-ink py-3"
        onSubmit={(event) => {
          event.preventDefault();
          go({ words });
        }}
      >
        <input
          type="search"
          aria-label="Customer, plan or last four digits"
          placeholder="Customer, plan or last four digits"
          className="input !w-[270px]"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
        <select
          aria-label="State"
          className="input !w-[140px]"
          value={asked.state}
          onChange={(event) => go({ state: event.target.value })}
        >
          <option value="">Any state</option>
          {CHARGE_STATES.map((state) => (
            <option key={state} value={state}>
              {CHARGE_STATE_WORDS[state]}
            </option>
          ))}
        </select>
        <DayInput
          aria-label="From"
          className="input !w-[150px]"
          value={asked.from}
          onDay={(day) => isDayOrNone(day) && go({ from: day })}
        />
        <DayInput
          aria-label="To"
          className="input !w-[150px]"
          value={asked.to}
          onDay={(day) => isDayOrNone(day) && go({ to: day })}
        />
        <label className="flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            className="size-4 accent-plum"
            checked={asked.notCarried}
            onChange={(event) => go({ notCarried: event.target.checked })}
          />
          Not yet carried over
        </label>
        <span className="ml-auto">
          <Segment
            label="Shown as"
            value={asked.as}
            choices={[
              ['list', 'List'],
              ['calendar', 'Calendar'],
            ]}
            onChoose={(as) => go({ as })}
          />
        </span>
      </form>
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
            <div className="sticky top-0 z-10 flex flex-wrap items-center gap-4 border border-ink bg-sheet px-4 py-2">
              <b className="font-semibold">
                {picked.length} chosen, {moneyText(money(BigInt(sum), picked[0]?.currency ?? currency), locale)}
              </b>
              <span className="flex-1" />
              <button
                type="button"
                className="btn"
                disabled={busy || !picked.some(({ state, carried }) => state === 'charged' && !carried)}
                onClick={() => void carry()}
              >
                Mark as carried over
              </button>
              <button
                type="button"
                className="btn"
                disabled={busy || !picked.some(({ state }) => state === 'refused')}
                onClick={() => void again()}
              >
                Charge again
              </button>
              <button type="button" className="link" onClick={() => setChosen(new Set())}>
                None
              </button>
            </div>
          ) : null}
          {byDay.map((on) => {
            const here = rows.filter((row) => row.on === on);
            return (
              <section key={on} aria-label={dayHeading(on, locale)}>
                <div className="flex items-baseline justify-between border-b border-ink pb-1 pt-4">
                  <h2 className="text-[13px] font-semibold">{dayHeading(on, locale)}</h2>
                  <span className="font-serif text-[14px] font-medium">{daySum(here, locale)}</span>
                </div>
                <ul>
                  {here.map((row) => (
                    <li
                      key={row.id}
                      className="flex min-h-[44px] items-center gap-3 border-b border-rule"
                      data-charge={row.id}
                    >
                      {mayAsk ? (
                        <input
                          type="checkbox"
                          aria-label={`${row.customer}, ${shortDate(row.on, locale)}`}
                          className="size-4 flex-none accent-plum"
                          checked={chosen.has(row.id)}
                          onChange={(event) => {
                            const now = new Set(chosen);
                            if (event.target.checked) now.add(row.id);
                            else now.delete(row.id);
                            setChosen(now);
                          }}
                        />
                      ) : null}
                      <span className={`w-[92px] flex-none font-medium ${stateColour(row.state)}`}>
                        {CHARGE_STATE_WORDS[row.state]}
                      </span>
                      <Link className="min-w-0 flex-1" href={`/ask/plans/${row.planId}` as Route}>
                        <span className="name private block truncate">{row.customer}</span>
                        <span className="block truncate text-[12.5px]/[17px] text-soft">
                          {row.plan}
                          {row.nominal === row.on
                            ? ''
                            : `, moved from ${shortDate(row.nominal, locale, { weekday: true })}`}
                        </span>
                      </Link>
                      <span className="hidden w-[230px] flex-none text-[12.5px]/[17px] text-soft sm:block">
                        {row.state === 'refused' && row.reason ? REFUSAL_BRIEF[row.reason] : ''}
                        {row.againAt ? `, again ${shortDate(dateInZone(new Date(row.againAt), zone), locale)}` : ''}
                        {row.carried
                          ? `carried over ${shortDate(dateInZone(new Date(row.carried.at), zone), locale)}, ${row.carried.by}`
                          : ''}
                      </span>
                      <span className="w-[92px] flex-none text-right font-serif text-[15.5px]">
                        {row.currency === currency ? (
                          <Figure minor={row.minor} currency={row.currency} locale={locale} />
                        ) : (
                          <Amount minor={row.minor} currency={row.currency} locale={locale} />
                        )}
                      </span>
                    </li>
                  ))}
                </ul>
              </section>
            );
          })}
          {next ? (
            <button type="button" className="link mt-3" disabled={busy} onClick={() => void showMore()}>
              {busy ? 'Fetching more' : 'Show more'}
            </button>
          ) : null}
        </>
      )}
    </div>
  );
}

const stateColour = (state: ChargeState): string =>
  state === 'refused' ? 'text-brick' : state === 'charged' ? 'text-leaf' : 'text-soft';

/** The sums of a day, one for each currency. */
function daySum(rows: readonly JsonCharge[], locale: string): string {
  const sums = new Map<string, number>();
  for (const row of rows)
    if (row.state !== 'skipped') sums.set(row.currency, (sums.get(row.currency) ?? 0) + row.minor);
  return [...sums].map(([currency, minor]) => moneyText(money(BigInt(minor), currency), locale)).join(' · ');
}

/** Another address for the private calendar, where the old one has got into wrong hands. */
function NewFeedAddress() {
  const { busy, press } = usePress();
  const [asked, setAsked] = useState(false);
  return (
    <>
      <button type="button" className="link" onClick={() => setAsked(true)}>
        New calendar address
      </button>
      <FormDialog
        open={asked}
        title="A new calendar address"
        about="The old address shows nothing any more. Every calendar program that has it must be given the new one."
        action="Make a new address"
        busy={busy}
        danger
        onClose={() => setAsked(false)}
        onSure={async () => {
          const answer = await press('/api/upcoming/feed', {}, 'The old address is void; copy the new one');
          if (answer.ok) setAsked(false);
          return troubleOf(answer);
        }}
      >
        {null}
      </FormDialog>
    </>
  );
}

'use client';
import { addDays, type CalendarDate, monthEnd, weekday } from '@/core/dates/calendar-date';
import { longDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import type { ChargeState } from '@/core/plan/state';
import { Button } from '../kit/button';

/** Charges of a day in one state and currency; `minor` is their sum in minor units. */
export type UpcomingDay = {
  readonly on: CalendarDate;
  readonly currency: string;
  readonly state: ChargeState;
  readonly count: number;
  readonly minor: number;
};

const WEEK = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** A month of charges: how many and how much on each day, and in all. */
export function MonthSheet({
  days,
  month,
  currency,
  locale,
  today,
  onMonth,
  onDay,
}: {
  days: readonly UpcomingDay[];
  /** `YYYY-MM` */
  month: string;
  currency: string;
  locale: string;
  today: CalendarDate;
  onMonth: (month: string) => void;
  onDay: (on: CalendarDate) => void;
}) {
  const first = `${month}-01` as CalendarDate;
  const start = addDays(first, 1 - weekday(first));
  const end = monthEnd(first);
  const cells: CalendarDate[] = [];
  for (let on = start; on <= end || cells.length % 7 !== 0; on = addDays(on, 1)) cells.push(on);
  const counted = days.filter(({ state }) => state !== 'skipped');
  const of = (on: CalendarDate) => counted.filter((day) => day.on === on);
  const sum = (all: readonly UpcomingDay[], states?: readonly ChargeState[]) =>
    all
      .filter((day) => day.currency === currency && (!states || states.includes(day.state)))
      .reduce((whole, { minor }) => whole + minor, 0);
  const text = (minor: number) => moneyText(money(BigInt(minor), currency), locale);
  const name = new Intl.DateTimeFormat(locale, { month: 'long', year: 'numeric', timeZone: 'UTC' }).format(
    new Date(`${first}T00:00:00Z`),
  );
  const step = (by: number) => {
    const moved = new Date(`${first}T00:00:00Z`);
    moved.setUTCMonth(moved.getUTCMonth() + by);
    onMonth(moved.toISOString().slice(0, 7));
  };
  return (
    <section aria-label={name} className="sheet px-5 py-4">
      <div className="flex flex-wrap items-center gap-4 pb-3">
        <Button size="low" aria-label="The month before" onClick={() => step(-1)}>
          ‹
        </Button>
        <h2 className="title-section min-w-[160px] text-center">{name}</h2>
        <Button size="low" aria-label="The month after" onClick={() => step(1)}>
          ›
        </Button>
        <dl className="ml-auto flex gap-8 [&_dd]:font-serif [&_dt]:text-[12px] [&_dt]:text-soft">
          <div>
            <dt>Planned</dt>
            <dd className="private">{text(sum(counted))}</dd>
          </div>
          <div>
            <dt>Charged</dt>
            <dd className="private">{text(sum(counted, ['charged']))}</dd>
          </div>
          <div>
            <dt>Refused</dt>
            <dd className="private">{text(sum(counted, ['refused']))}</dd>
          </div>
        </dl>
      </div>
      <table className="w-full table-fixed border-collapse border-t border-ink">
        <thead>
          <tr>
            {WEEK.map((day) => (
              <th key={day} scope="col" className="py-1 text-left text-[12px] font-medium text-soft">
                {day}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: cells.length / 7 }, (_, week) => (
            <tr key={cells[week * 7]} className="border-t border-rule">
              {cells.slice(week * 7, week * 7 + 7).map((on) => {
                const here = of(on);
                const count = here.reduce((all, one) => all + one.count, 0);
                const refused = here.some(({ state }) => state === 'refused');
                const inside = on.startsWith(month);
                return (
                  <td
                    key={on}
                    className={`h-[76px] border-l border-rule align-top first:border-l-0 ${weekday(on) >= 6 ? 'bg-wash' : ''}`}
                  >
                    {count > 0 && inside ? (
                      <button
                        type="button"
                        className="block h-full w-full px-2 py-1 text-left hover:bg-petal"
                        aria-label={`${longDate(on, locale)}: ${count} charges, ${text(sum(here))}`}
                        onClick={() => onDay(on)}
                      >
                        <Day on={on} today={today} />
                        <span className="private mt-1 block truncate font-serif text-[15px] font-medium">
                          {figureText(money(BigInt(sum(here)), currency), locale)}
                        </span>
                        <span className={`block text-[11.5px] ${refused ? 'font-medium text-brick' : 'text-soft'}`}>
                          {count} {count === 1 ? 'charge' : 'charges'}
                          {refused ? ', refused' : ''}
                        </span>
                      </button>
                    ) : (
                      <span className={`block px-2 py-1 ${inside ? '' : 'opacity-45'}`}>
                        <Day on={on} today={today} />
                      </span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const Day = ({ on, today }: { on: CalendarDate; today: CalendarDate }) => (
  <span className={`text-[12.5px] ${on === today ? 'font-bold text-plum' : 'text-soft'}`}>{Number(on.slice(8))}</span>
);

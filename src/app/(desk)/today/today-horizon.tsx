import { type CalendarDate, daysBetween } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { jsonMinor, money } from '@/core/money/money';
import { figureText } from '@/core/money/money-text';
import { DAYS_AHEAD } from '@/core/today/horizon';
import type { TodayView } from '@/flows/day/today';
import { SumsBeside } from '@/ui/kit/sums-beside';
import { HorizonStrip } from '@/ui/today/horizon-strip';

const NAMED = 4;
const LABEL_DAYS = 6;

/** The largest expected days that may carry a name without running into each other. */
function namedDays(days: TodayView['horizon']['days']): Set<CalendarDate> {
  const named: CalendarDate[] = [];
  for (const day of [...days].sort((a, b) => (a.due < b.due ? 1 : -1))) {
    const near = named.some((on) => Math.abs(daysBetween(on, day.on)) < LABEL_DAYS);
    if (day.due > 0n && !near && named.length < NAMED) named.push(day.on);
  }
  return new Set(named);
}

/** Money by day, back and ahead, as words, chart and table. */
export function TodayHorizon({ view }: { view: TodayView }) {
  const { business, today, horizon, names } = view;
  const { currency, deskLocale: locale } = business;
  const text = (minor: bigint) => figureText(money(minor, currency), locale);
  const named = namedDays(horizon.days);
  const largest = new Map(names.map((name) => [name.dueOn, name]));
  const days = horizon.days.map((day) => {
    const past = day.cameIn > 0n || day.on < today;
    const shown = past ? day.cameIn : day.due;
    const who = past ? undefined : largest.get(day.on);
    return {
      on: day.on,
      day: day.on.endsWith('-01') ? (shortDate(day.on, locale).split(' ')[1] ?? '') : String(Number(day.on.slice(8))),
      monthBegins: day.on.endsWith('-01'),
      weekend: day.weekday > 5,
      monday: day.weekday === 1,
      today: day.on === today,
      past,
      value: jsonMinor(shown),
      figure: text(shown),
      nameEnds: daysBetween(day.on, horizon.days.at(-1)?.on ?? day.on) < LABEL_DAYS,
      name: named.has(day.on) && who ? `${who.customer.slice(0, 22)}${who.customer.length > 22 ? '…' : ''}` : '',
      href: who ? `/ask/invoices/${who.invoiceId}` : null,
    };
  });
  const weeks = horizon.weeks.map((week) => {
    const past = week.to < today;
    return {
      from: week.from,
      span: daysBetween(week.from, week.to) + 1,
      figure: text(past ? week.cameIn : week.due),
      past,
    };
  });
  return (
    <HorizonStrip
      days={days}
      weeks={weeks}
      words={
        <>
          {DAYS_AHEAD / 7} weeks ahead: <span className="private">{text(horizon.expected)}</span>
          <SumsBeside sums={view.expectedBeside} locale={locale} /> due on invoices, those to recur included, and by
          plans.
          {horizon.late > 0n ? (
            <>
              {' '}
              The <span className="private">{text(horizon.late)}</span> that is late is not counted.
            </>
          ) : null}
        </>
      }
    />
  );
}

'use client';
import { useRouter } from 'next/navigation';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { longDate, shortDate } from '@/core/dates/date-text';
import { dayFigures } from '@/core/dates/typed-day';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { DAY_WAYS, type DayWay, deskLocale, NUMBER_WAYS, type NumberWay, type Writing } from '@/core/writing/writing';
import { useBusinessCurrency } from '../kit/at-desk';
import { Button } from '../kit/button';
import { Radio } from '../kit/check';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

const SUM = 123_456_789n;

/** How whoever is signed in writes days and numbers; papers and mails stay as the business writes them. */
export function OwnWriting({
  writing,
  locale,
  today,
}: {
  writing: Writing;
  /** The business's own. */
  locale: string;
  today: CalendarDate;
}) {
  const router = useRouter();
  const currency = useBusinessCurrency();
  const form = useTyped<{ days: DayWay | null; numbers: NumberWay | null }>({
    start: { days: writing.days, numbers: writing.numbers },
    shape: () => import('@/input/own-settings-input').then(({ WritingInput }) => WritingInput),
    send: (body) => send('PUT', '/api/you/writing', body),
    done: (_value, values) => {
      form.begin(values);
      say('That is how it is written for you from now on');
      router.refresh();
    },
  });
  const { values, set } = form;
  const days = (way: DayWay): string => {
    const own = deskLocale(locale, { days: way, numbers: null });
    return [...new Set([shortDate(today, own, { year: true }), dayFigures(today, own)])].join(', ');
  };
  const numbers = (way: NumberWay): string =>
    moneyText(money(SUM, currency), deskLocale(locale, { days: null, numbers: way }));
  const own = deskLocale(locale, values);
  const choice = <Way extends string>(
    name: string,
    legend: string,
    ways: readonly Way[],
    chosen: Way | null,
    written: (way: Way) => string,
    choose: (way: Way | null) => void,
  ) => (
    <fieldset className="min-w-0">
      <legend className="label mb-1">{legend}</legend>
      <div className="grid gap-1">
        {[null, ...ways].map((way) => (
          <label key={way ?? 'business'} className="flex items-center gap-2">
            <Radio name={name} checked={chosen === way} onChange={() => choose(way)} />
            <span className="tabular-nums">{way === null ? 'As the business writes' : written(way)}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
  return (
    <Form
      of={form}
      legend="How you write"
      actions={
        <div className="flex flex-wrap items-baseline gap-x-4 gap-y-2">
          <Button type="submit" look="go" busy={form.busy} disabled={!form.changed} busyWords="Keeping it">
            Write it so
          </Button>
          <span className="document">
            {moneyText(money(SUM, currency), own)} on {longDate(today, own)}
          </span>
        </div>
      }
    >
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        {choice('days', 'Dates', DAY_WAYS, values.days, days, (way) => set({ days: way }))}
        {choice('numbers', 'Numbers', NUMBER_WAYS, values.numbers, numbers, (way) => set({ numbers: way }))}
      </div>
    </Form>
  );
}

'use client';
import { shortDate } from '@/core/dates/date-text';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { Forecast } from '@/core/plan/plan';
import { ChargeCalendar } from './charge-calendar';
import type { DrawnCharge } from './charge-words';

export const drawn = (charges: Forecast['charges']): DrawnCharge[] =>
  charges.map(({ amountMinor, ...charge }) => ({ ...charge, minor: jsonMinor(amountMinor) }));

/** What is unusual about the dates, in a sentence. */
function said(result: Forecast, locale: string): string {
  const count = (kind: string) =>
    result.charges.filter(({ reasons }) => reasons.some((one) => one.kind === kind)).length;
  const [ends, weekends, off] = [count('month-end'), count('weekend'), count('holiday')];
  const parts = [
    ends > 0 ? `${ends} ${ends === 1 ? 'falls' : 'fall'} on a month’s last day` : '',
    weekends > 0 ? `${weekends} ${weekends === 1 ? 'date moves' : 'dates move'} off a weekend` : '',
    off > 0 ? `${off} ${off === 1 ? 'moves' : 'move'} off a day off` : '',
    result.last ? `the last is ${shortDate(result.last, locale, { year: true })}` : 'without an end',
  ];
  const text = parts.filter(Boolean).join('; ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Every date and sum of a plan, drawn, with what they come to. */
export function EveryCharge({
  result,
  past,
  trouble,
  holidays,
  totalMinor,
  currency,
  locale,
}: {
  /** What the plan comes to; null while it cannot be worked out. */
  result: Forecast | null;
  /** How many dates lie before its start. */
  past: number;
  trouble: string | null;
  holidays: readonly string[];
  /** What is charged in all, for parts of a balance. */
  totalMinor: bigint | null;
  currency: string;
  locale: string;
}) {
  const sum = (minor: bigint) => moneyText(money(minor, currency), locale);
  return (
    <section aria-label="Every charge" className="sheet px-6 py-5 sm:px-7">
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4">
        <h2 className="title-section">Every charge, drawn</h2>
        <span className="text-soft">{result ? said(result, locale) : ''}</span>
        {past > 0 ? (
          <span className="w-full font-medium text-brick">
            {past === 1 ? 'One date is past' : `${past} dates are past`}: charged at once when it starts.
          </span>
        ) : null}
      </div>
      {result ? (
        <>
          <ChargeCalendar
            charges={drawn(result.charges)}
            holidays={holidays}
            totalMinor={totalMinor === null ? null : jsonMinor(totalMinor)}
            currency={currency}
            locale={locale}
          />
          <dl className="mt-5 flex flex-wrap gap-x-10 gap-y-2 border-t border-ink pt-3 [&_dd]:font-serif [&_dd]:text-[17px] [&_dt]:text-[12.5px] [&_dt]:text-soft">
            <div>
              <dt>{result.endless ? 'The next' : 'Payments'}</dt>
              <dd data-count="">{result.count}</dd>
            </div>
            <div>
              <dt>{result.endless ? 'These come to' : 'In all'}</dt>
              <dd data-total="">{sum(result.totalMinor)}</dd>
            </div>
            {result.years.length > 1
              ? result.years.slice(0, 6).map(({ year, minor }) => (
                  <div key={year}>
                    <dt>In {year}</dt>
                    <dd>{sum(minor)}</dd>
                  </div>
                ))
              : null}
            <div>
              <dt>Within a year</dt>
              <dd>{sum(result.comingYearMinor)}</dd>
            </div>
          </dl>
        </>
      ) : (
        <p className="py-8 text-soft">
          {trouble ?? 'Write what is charged and its price: every date and sum appears here as you type.'}
        </p>
      )}
    </section>
  );
}

import type { Metadata } from 'next';
import { pageActor } from '@/app/session';
import { monthText, shortDate } from '@/core/dates/date-text';
import { jsonMinor } from '@/core/money/money';
import { sumOfDays } from '@/core/payment/day-batch';
import { batchList } from '@/flows/day/day-batches';
import { Amount, Figure } from '@/ui/kit/amount';
import { Leader } from '@/ui/kit/leader';
import { Overview, OverviewPart, OverviewRow } from '@/ui/kit/overview';
import { batchState } from './json-batch';

export const metadata: Metadata = { title: 'Daily closing' };

/** While no day is chosen: what this month comes to so far, and which days need a look. */
export default async function NoDayOpen() {
  const { business, today, rows } = await batchList(await pageActor(), null);
  const { deskLocale: locale } = business;
  const month = today.slice(0, 7);
  const sums = sumOfDays(rows.filter(({ day }) => day.startsWith(month)));
  const differing = rows.filter(({ differences, settledBy }) => differences.length > 0 && !settledBy);
  return (
    <Overview label="Closings at a glance">
      <OverviewPart name={monthText(month, locale)}>
        {sums.length === 0 ? <p className="py-3 text-soft">Nothing has moved yet this month.</p> : null}
        {sums.map(({ currency, cardsMinor, backMinor, feesMinor, disputedMinor, byHandMinor, allMinor }) => {
          const figure = (minor: bigint) => <Figure minor={jsonMinor(minor)} currency={currency} locale={locale} />;
          return (
            <div key={currency} className="document max-w-[460px] py-3 leading-7">
              {sums.length > 1 ? <h3 className="font-sans text-[12.5px]/5 font-semibold">{currency}</h3> : null}
              <Leader label="By card">{figure(cardsMinor)}</Leader>
              {backMinor > 0n ? <Leader label="Refunded">{figure(-backMinor)}</Leader> : null}
              <Leader label="Processing fees">{figure(-feesMinor)}</Leader>
              {disputedMinor === 0n ? null : <Leader label="Disputed, with fees">{figure(-disputedMinor)}</Leader>}
              {byHandMinor > 0n ? <Leader label="Cash, cheques and transfers">{figure(byHandMinor)}</Leader> : null}
              <Leader label="The month so far" className="rule-total mt-1 py-0.5 text-[17px]/7 font-semibold">
                {figure(allMinor)}
              </Leader>
            </div>
          );
        })}
      </OverviewPart>
      <OverviewPart name="Days that need a look">
        {differing.length === 0 ? (
          <p className="py-3 text-soft">None: the processor’s book and yours agree on every closed day.</p>
        ) : (
          <ul>
            {differing.map((row) => (
              <OverviewRow
                key={row.day}
                href={`/money/batches/${row.day}`}
                name={shortDate(row.day, locale, { weekday: true })}
                isPrivate={false}
                about={batchState(row)}
                figure={row.sums.map(({ currency, netMinor }) => (
                  <span key={currency} className="private block">
                    <Amount minor={jsonMinor(netMinor)} currency={currency} locale={locale} />
                  </span>
                ))}
              />
            ))}
          </ul>
        )}
      </OverviewPart>
    </Overview>
  );
}

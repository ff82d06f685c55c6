'use client';
import type { Route } from 'next';
import Link from 'next/link';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { dayHeading, shortDate } from '@/core/dates/date-text';
import { dateInZone } from '@/core/dates/zone';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { REFUSAL_BRIEF } from '@/core/payment/outcome';
import { CHARGE_STATE_WORDS, type ChargeState } from '@/core/plan/state';
import { Amount, Figure } from '../kit/amount';
import { Check } from '../kit/check';
import type { JsonCharge } from './json-charge';

const stateColour = (state: ChargeState): string =>
  state === 'refused' ? 'text-brick' : state === 'charged' ? 'text-leaf' : 'text-soft';

/** The sums of a day, one for each currency. */
function daySum(rows: readonly JsonCharge[], locale: string): string {
  const sums = new Map<string, number>();
  for (const row of rows)
    if (row.state !== 'skipped') sums.set(row.currency, (sums.get(row.currency) ?? 0) + row.minor);
  return [...sums].map(([currency, minor]) => moneyText(money(BigInt(minor), currency), locale)).join(' · ');
}

type Shown = {
  currency: string;
  locale: string;
  zone: string;
  /** None where nothing can be ticked. */
  onTick?: ((id: string, ticked: boolean) => void) | undefined;
};

function ChargeRow({ row, chosen, currency, locale, zone, onTick }: Shown & { row: JsonCharge; chosen: boolean }) {
  return (
    <li className="flex min-h-[44px] items-center gap-3 border-b border-rule" data-charge={row.id}>
      {onTick ? (
        <Check
          aria-label={`${row.customer}, ${shortDate(row.on, locale)}`}
          checked={chosen}
          onChange={(event) => onTick(row.id, event.target.checked)}
        />
      ) : null}
      <span className={`w-[92px] flex-none font-medium ${stateColour(row.state)}`}>
        {CHARGE_STATE_WORDS[row.state]}
      </span>
      <Link className="min-w-0 flex-1" href={`/ask/plans/${row.planId}` as Route}>
        <span className="name private block truncate">{row.customer}</span>
        <span className="block truncate text-[12.5px]/[17px] text-soft">
          {row.plan}
          {row.nominal === row.on ? '' : `, moved from ${shortDate(row.nominal, locale, { weekday: true })}`}
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
  );
}

/** The charges of one day with their sums. */
export function ChargesOfDay({
  on,
  rows,
  chosen,
  ...shown
}: Shown & { on: CalendarDate; rows: readonly JsonCharge[]; chosen: ReadonlySet<string> }) {
  const { locale } = shown;
  return (
    <section aria-label={dayHeading(on, locale)}>
      <div className="flex items-baseline justify-between border-b border-ink pb-1 pt-4">
        <h2 className="text-[13px] font-semibold">{dayHeading(on, locale)}</h2>
        <span className="font-serif text-[14px] font-medium">{daySum(rows, locale)}</span>
      </div>
      <ul>
        {rows.map((row) => (
          <ChargeRow key={row.id} row={row} chosen={chosen.has(row.id)} {...shown} />
        ))}
      </ul>
    </section>
  );
}

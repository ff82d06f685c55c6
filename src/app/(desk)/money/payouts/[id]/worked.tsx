import type { Route } from 'next';
import Link from 'next/link';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { weekday } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { jsonMinor, money } from '@/core/money/money';
import { figureText, moneyText } from '@/core/money/money-text';
import { CHANNEL_COLUMNS, partLines, type WorkingLine, workingLines } from '@/core/payout/paper';
import type { PayoutTable } from '@/core/payout/working';
import type { WorkedSheet } from '@/flows/payout/payout-sheet';
import { Figure } from '@/ui/kit/amount';

const dayHref = (day: CalendarDate): Route => `/money/batches/${day}` as Route;

/** Days by channels, both ways added up; each day leads to its closing. */
export function Table({ table, currency, locale }: { table: PayoutTable; currency: string; locale: string }) {
  const figure = (minor: bigint) =>
    minor === 0n ? (
      <span className="text-soft" aria-hidden="true">
        ·
      </span>
    ) : (
      figureText(money(minor, currency), locale)
    );
  return (
    <section className="overflow-x-auto" aria-label="Days by channel" tabIndex={0}>
      <table className="private w-full min-w-[480px] font-serif text-[14px]/5">
        <thead>
          <tr className="border-b border-ink font-sans text-[12.5px]/[18px] text-soft">
            <th scope="col" className="py-1 text-left font-medium">
              Day
            </th>
            {table.channels.map((channel) => (
              <th key={channel} scope="col" className="py-1 pl-2 text-right font-medium">
                {CHANNEL_COLUMNS[channel] ?? channel}
              </th>
            ))}
            <th scope="col" className="py-1 pl-2 text-right font-medium">
              All
            </th>
          </tr>
        </thead>
        <tbody>
          {table.rows.map(({ day, minors, allMinor }) => (
            <tr key={day} className={`border-b border-rule ${weekday(day) > 5 ? 'bg-wash' : ''}`}>
              <th
                scope="row"
                className="whitespace-nowrap py-[3px] text-left font-sans text-[12.5px]/[18px] font-normal"
              >
                <Link className="link" href={dayHref(day)}>
                  {shortDate(day, locale, { weekday: true })}
                </Link>
              </th>
              {minors.map((minor, at) => (
                <td key={table.channels[at]} className="py-[3px] pl-2 text-right">
                  {figure(minor)}
                </td>
              ))}
              <td className="py-[3px] pl-2 text-right font-medium">{figure(allMinor)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr className="rule-total font-semibold">
            <th scope="row" className="py-1 text-left font-sans text-[12.5px]/[18px]">
              Cards
            </th>
            {table.totals.map((minor, at) => (
              <td key={table.channels[at]} className="py-1 pl-2 text-right">
                {figure(minor)}
              </td>
            ))}
            <td className="py-1 pl-2 text-right">{figure(table.allMinor)}</td>
          </tr>
        </tfoot>
      </table>
    </section>
  );
}

/** Lines that add up, one below the other. */
export function Lines({
  lines,
  currency,
  locale,
  notes = {},
  narrow = false,
}: {
  lines: readonly WorkingLine[];
  currency: string;
  locale: string;
  /** What stands beside a line in ochre, by its key. */
  notes?: Readonly<Record<string, string>>;
  /** What is to be known of a line stands below it. */
  narrow?: boolean;
}) {
  return (
    <ul className="document leading-[23px]">
      {lines.map(({ key, label, about, minor, isSum }) => (
        <li key={key} className={isSum ? 'mt-1 border-t border-ink pt-0.5 font-semibold' : ''}>
          <span className="leader">
            <span className="min-w-0">
              <span className={isSum ? '' : 'private'}>{label}</span>
              {about && !narrow ? <span className="small pl-1.5 font-sans text-soft">{about}</span> : null}
              {notes[key] ? <span className="small pl-1.5 font-sans text-ochre">{notes[key]}</span> : null}
            </span>
            <span className="dots" aria-hidden="true" />
            <span>
              <Figure minor={jsonMinor(minor)} currency={currency} locale={locale} />
            </span>
          </span>
          {about && narrow ? <span className="small private block font-sans text-soft">{about}</span> : null}
        </li>
      ))}
    </ul>
  );
}

/** How a sheet's sum is worked out: by days and channels, then down to it; of a partner's, by payment. */
export function Worked({ sheet }: { sheet: WorkedSheet }) {
  const { business, currency, table, working, beyondMinor, movements } = sheet;
  const { deskLocale: locale } = business;
  if (!table || !working) return <Lines lines={partLines(movements, locale)} currency={currency} locale={locale} />;
  const beyond = beyondMinor < 0n ? -beyondMinor : beyondMinor;
  const notes: Record<string, string> =
    beyondMinor === 0n
      ? {}
      : { fees: `${moneyText(money(beyond, currency), locale)} ${beyondMinor < 0n ? 'less' : 'more'} than agreed` };
  return (
    <>
      {table.channels.length > 0 ? <Table table={table} currency={currency} locale={locale} /> : null}
      <div className="mt-3">
        <Lines lines={workingLines({ ...sheet, working }, locale)} currency={currency} locale={locale} notes={notes} />
      </div>
    </>
  );
}

/** The card payments of these days in the register. */
export function paymentsHref({ days, currency }: Pick<WorkedSheet, 'days' | 'currency'>): Route {
  const [first, last] = [days[0]?.day ?? '', days.at(-1)?.day ?? ''];
  return `/money/payments?way=card&currency=${currency}&from=${first}&to=${last}` as Route;
}

import { type CalendarDate, daysInMonth, weekday } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { Figure } from '../kit/amount';
import { type DrawnCharge, reasonWords } from './charge-words';

const DAY = 14;
const HIGH = 36;
const MOST_MONTHS = 24;
/** So many charges of a month are said one by one. */
const FEW = 2;

type Month = { readonly key: string; readonly charges: readonly DrawnCharge[] };

/** The months from the first charge to the last, with those in between; at most two years of them. */
function monthsOf(charges: readonly DrawnCharge[]): Month[] {
  const keys = charges.flatMap(({ chargedOn, nominal }) => [chargedOn.slice(0, 7), nominal.slice(0, 7)]).sort();
  const [first, last] = [keys[0], keys.at(-1)];
  if (!first || !last) return [];
  const months: Month[] = [];
  let [year, month] = first.split('-').map(Number) as [number, number];
  for (let at = 0; at < MOST_MONTHS; at++) {
    const key = `${year}-${String(month).padStart(2, '0')}`;
    if (key > last) break;
    months.push({ key, charges: charges.filter(({ chargedOn }) => chargedOn.startsWith(key)) });
    month += 1;
    if (month > 12) [year, month] = [year + 1, 1];
  }
  return months;
}

const dayOf = (on: string): number => Number(on.slice(8));
const middle = (day: number): number => (day - 0.5) * DAY;

/** One month as a strip of days: weekends shaded, days that there are not hatched, charges as dots, a moved one with where it was. */
function Strip({
  month,
  holidays,
  marked,
}: {
  month: Month;
  holidays: ReadonlySet<string>;
  marked: readonly DrawnCharge[];
}) {
  const [year, number] = month.key.split('-').map(Number) as [number, number];
  const length = daysInMonth(year, number);
  const days = Array.from({ length }, (_, at) => `${month.key}-${String(at + 1).padStart(2, '0')}` as CalendarDate);
  const y = HIGH / 2;
  return (
    <svg
      viewBox={`0 0 ${31 * DAY} ${HIGH}`}
      width={31 * DAY}
      height={HIGH}
      aria-hidden="true"
      className="block flex-none"
    >
      {days.map((on) =>
        weekday(on) >= 6 || holidays.has(on) ? (
          <rect
            key={on}
            x={(dayOf(on) - 1) * DAY}
            width={DAY}
            height={HIGH}
            fill={holidays.has(on) ? 'var(--dusk-tint)' : 'var(--desk)'}
            shapeRendering="crispEdges"
          />
        ) : null,
      )}
      {length < 31 ? (
        <rect x={length * DAY} width={(31 - length) * DAY} height={HIGH} fill="url(#no-such-day)" />
      ) : null}
      <path d={`M0 ${HIGH - 0.5}H${length * DAY}`} stroke="var(--rule)" />
      {marked.map((charge) => {
        const from = charge.nominal.startsWith(month.key) ? middle(dayOf(charge.nominal)) : null;
        const to = charge.chargedOn.startsWith(month.key) ? middle(dayOf(charge.chargedOn)) : null;
        const moved = charge.nominal !== charge.chargedOn && charge.reasons.some(({ kind }) => kind !== 'at-start');
        const key = `${charge.part} ${charge.nominal}`;
        return (
          <g key={key}>
            {moved && from !== null && to !== null ? (
              <path d={`M${from} ${y}H${to}`} stroke="var(--dusk)" strokeWidth="1.2" />
            ) : null}
            {moved && from !== null ? (
              <circle
                cx={from}
                cy={y}
                r="5.2"
                fill="var(--sheet)"
                stroke="var(--dusk)"
                strokeWidth="1.3"
                strokeDasharray="2.2 1.8"
              />
            ) : null}
            {to !== null && charge.part === 'deposit' ? (
              <path d={`M${to} ${y - 7}l7 7-7 7-7-7z`} fill="var(--sheet)" stroke="var(--dusk)" strokeWidth="1.5" />
            ) : null}
            {to !== null && charge.part === 'period' ? (
              <circle
                cx={to}
                cy={y}
                r="5.6"
                fill={charge.minor === 0 ? 'var(--sheet)' : 'var(--dusk)'}
                stroke="var(--dusk)"
                strokeWidth="1.2"
              />
            ) : null}
          </g>
        );
      })}
    </svg>
  );
}

/** The day of a charge and what moved it there: on two lines where it is the month's only one. */
function ChargedOn({ on, why, alone }: { on: string; why: string; alone: boolean }) {
  return (
    <span className={`block max-w-[168px] truncate ${alone ? 'leading-4' : 'leading-[17px]'}`} title={why || undefined}>
      {on}
      {why ? (
        <span className={`text-[11.5px] text-soft ${alone ? 'block truncate leading-[14px]' : 'ml-1.5'}`}>{why}</span>
      ) : null}
    </span>
  );
}

/**
 * Every charge drawn on a calendar, a month a line, with its day, the rule that moved it, and its sum beside it.
 *
 * @param restMinor what is still to pay after each charge is shown for parts of a whole, in minor units; null for what goes on
 */
export function ChargeCalendar({
  charges,
  holidays,
  totalMinor,
  currency,
  locale,
}: {
  charges: readonly DrawnCharge[];
  holidays: readonly string[];
  /** The whole that the charges pay off, or null where there is none. */
  totalMinor: number | null;
  currency: string;
  locale: string;
}) {
  const off = new Set(holidays);
  const months = monthsOf(charges);
  const left = new Map<string, number>();
  let rest = totalMinor ?? 0;
  for (const month of months) {
    rest -= month.charges.reduce((sum, { minor }) => sum + minor, 0);
    left.set(month.key, rest);
  }
  return (
    <section aria-label="Every charge on a calendar" tabIndex={0} className="overflow-x-auto">
      <svg width="0" height="0" aria-hidden="true" className="absolute">
        <defs>
          <pattern id="no-such-day" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V6" stroke="var(--rule)" strokeWidth="1.4" />
          </pattern>
        </defs>
      </svg>
      <table className="w-full min-w-[740px] border-collapse">
        <thead>
          <tr className="border-b border-ink text-[12px]/5 text-soft">
            <th scope="col" className="w-[72px] text-left font-medium">
              <span className="sr-only">Month</span>
            </th>
            <th scope="col" style={{ width: 31 * DAY }}>
              <span className="sr-only">Days</span>
              <span aria-hidden="true" className="flex text-[10px] font-normal">
                {Array.from({ length: 31 }, (_, at) => (
                  <span key={at} className="text-center" style={{ width: DAY }}>
                    {at + 1}
                  </span>
                ))}
              </span>
            </th>
            <th scope="col" className="pl-4 text-left font-medium">
              Charged on
            </th>
            <th scope="col" className="pl-3 text-right font-medium">
              Amount
            </th>
            {totalMinor === null ? null : (
              <th scope="col" className="pl-3 text-right font-medium">
                Still to pay
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {months.map((month) => {
            const few = month.charges.length <= FEW ? month.charges : [];
            const sum = month.charges.reduce((all, { minor }) => all + minor, 0);
            const newYear = month === months[0] || month.key.endsWith('-01');
            return (
              <tr key={month.key} data-month={month.key}>
                <th scope="row" className="text-left font-serif text-[15px]/5 font-medium">
                  {shortMonth(month.key, locale)}
                  {newYear ? (
                    <span className="ml-1 text-[11.5px] font-normal text-soft">{month.key.slice(0, 4)}</span>
                  ) : null}
                </th>
                <td className="p-0">
                  <Strip
                    month={month}
                    holidays={off}
                    marked={charges.filter(
                      ({ nominal, chargedOn }) => nominal.startsWith(month.key) || chargedOn.startsWith(month.key),
                    )}
                  />
                </td>
                <td className="pl-4 text-[13px]">
                  {few.length > 0 ? (
                    few.map((charge) => (
                      <ChargedOn
                        key={`${charge.part} ${charge.nominal}`}
                        on={shortDate(charge.chargedOn, locale, { weekday: true })}
                        why={reasonWords(charge, currency, locale)}
                        alone={few.length === 1}
                      />
                    ))
                  ) : month.charges.length > 0 ? (
                    <span title={month.charges.map(({ chargedOn }) => dayOf(chargedOn)).join(', ')}>
                      {month.charges.length} charges
                    </span>
                  ) : (
                    <span className="text-soft">none</span>
                  )}
                </td>
                <td className="pl-3 text-right font-serif text-[15px] font-medium">
                  {month.charges.length > 0 ? <Figure minor={sum} currency={currency} locale={locale} /> : null}
                </td>
                {totalMinor === null ? null : (
                  <td className="pl-3 text-right font-serif text-[15px] text-soft">
                    <Figure minor={left.get(month.key) ?? 0} currency={currency} locale={locale} />
                  </td>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="small mt-3 flex flex-wrap gap-x-5 gap-y-1 text-soft" aria-hidden="true">
        <Key mark={<circle cx="7" cy="7" r="5.6" fill="var(--dusk)" />}>charged</Key>
        <Key
          mark={
            <circle
              cx="7"
              cy="7"
              r="5.2"
              fill="none"
              stroke="var(--dusk)"
              strokeWidth="1.3"
              strokeDasharray="2.2 1.8"
            />
          }
        >
          would fall here
        </Key>
        <Key mark={<rect width="14" height="14" fill="var(--desk)" />}>weekend</Key>
        {holidays.length > 0 ? <Key mark={<rect width="14" height="14" fill="var(--dusk-tint)" />}>day off</Key> : null}
        <Key mark={<rect width="14" height="14" fill="url(#no-such-day)" />}>no such day</Key>
      </p>
    </section>
  );
}

const Key = ({ mark, children }: { mark: React.ReactNode; children: string }) => (
  <span className="flex items-center gap-1.5">
    <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
      {mark}
    </svg>
    {children}
  </span>
);

const shortMonth = (key: string, locale: string): string =>
  new Intl.DateTimeFormat(locale, { month: 'short', timeZone: 'UTC' }).format(new Date(`${key}-01T00:00:00Z`));

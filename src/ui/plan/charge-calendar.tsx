import { type CalendarDate, daysInMonth, weekday } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { Figure } from '../kit/amount';
import { type DrawnCharge, reasonWords } from './charge-words';

/** How wide the strip of a line is: all 31 days of a month, with their sums beside it, on the smallest desk screen. */
const WIDE = 372;
const HIGH = 36;
const MOST_LINES = 24;
/** The days named above the strips. */
const NAMED_DAYS = [1, 5, 10, 15, 20, 25, 31];
/** So many charges of a line are said one by one. */
const FEW = 2;

/** A line of the calendar: a month, or a quarter where the rhythm is long. */
type Line = { readonly key: string; readonly months: readonly string[]; readonly charges: readonly DrawnCharge[] };

const monthKey = (year: number, month: number): string => `${year}-${String(month).padStart(2, '0')}`;
const quarterOf = (month: string): string => {
  const [year, number] = month.split('-').map(Number) as [number, number];
  return monthKey(year, number - ((number - 1) % 3));
};

/** The months from the first charge to the last, with those in between. */
function monthsOf(charges: readonly DrawnCharge[]): string[] {
  const keys = charges.flatMap(({ chargedOn, nominal }) => [chargedOn.slice(0, 7), nominal.slice(0, 7)]).sort();
  const [first, last] = [keys[0], keys.at(-1)];
  if (!first || !last) return [];
  const months: string[] = [];
  for (let [year, month] = first.split('-').map(Number) as [number, number]; monthKey(year, month) <= last; month++) {
    if (month > 12) [year, month] = [year + 1, 1];
    if (monthKey(year, month) <= last) months.push(monthKey(year, month));
  }
  return months;
}

/** The lines that are drawn: months, or, where most of them would be empty, the quarters in which something falls. */
export function calendarLines(charges: readonly DrawnCharge[]): Line[] {
  const months = monthsOf(charges);
  const within = (of: readonly string[]) =>
    charges.filter(({ chargedOn }) => of.some((month) => chargedOn.startsWith(month)));
  const touched = new Set(charges.flatMap(({ chargedOn, nominal }) => [chargedOn.slice(0, 7), nominal.slice(0, 7)]));
  const isLong = months.length > 3 && touched.size * 2 < months.length;
  const lines = isLong
    ? [...new Set([...touched].sort().map(quarterOf))].map((quarter) => {
        const [year, month] = quarter.split('-').map(Number) as [number, number];
        return { key: quarter, months: [0, 1, 2].map((more) => monthKey(year, month + more)) };
      })
    : months.map((month) => ({ key: month, months: [month] }));
  return lines.slice(0, MOST_LINES).map((line) => ({ ...line, charges: within(line.months) }));
}

const dayOf = (on: string): number => Number(on.slice(8));

/** A line as a strip of days: weekends shaded, days that there are not hatched, charges as dots, a moved one with where it was. */
function Strip({
  months,
  holidays,
  marked,
  locale,
}: {
  months: readonly string[];
  holidays: ReadonlySet<string>;
  marked: readonly DrawnCharge[];
  locale: string;
}) {
  const day = WIDE / 31 / months.length;
  const y = HIGH / 2;
  const left = (on: string): number | null => {
    const at = months.indexOf(on.slice(0, 7));
    return at < 0 ? null : (at * 31 + dayOf(on) - 1) * day;
  };
  const middle = (on: string): number | null => {
    const x = left(on);
    return x === null ? null : x + day / 2;
  };
  return (
    <svg viewBox={`0 0 ${WIDE} ${HIGH}`} width={WIDE} height={HIGH} aria-hidden="true" className="block flex-none">
      {months.map((month, at) => {
        const [year, number] = month.split('-').map(Number) as [number, number];
        const length = daysInMonth(year, number);
        const begins = at * 31 * day;
        return (
          <g key={month}>
            {Array.from({ length }, (_, of) => `${month}-${String(of + 1).padStart(2, '0')}` as CalendarDate).map(
              (on) =>
                weekday(on) >= 6 || holidays.has(on) ? (
                  <rect
                    key={on}
                    x={left(on) ?? 0}
                    width={day}
                    height={HIGH}
                    fill={holidays.has(on) ? 'var(--dusk-tint)' : 'var(--desk)'}
                  />
                ) : null,
            )}
            {length < 31 ? (
              <rect x={begins + length * day} width={(31 - length) * day} height={HIGH} fill="url(#no-such-day)" />
            ) : null}
            <path d={`M${begins} ${HIGH - 0.5}H${begins + length * day}`} stroke="var(--rule)" />
            {months.length > 1 ? (
              <>
                {at > 0 ? <path d={`M${begins} 0V${HIGH}`} stroke="var(--edge)" strokeWidth="1" /> : null}
                <text x={begins + 4} y={11} fontSize={10} fill="var(--ink-soft)" fontFamily="var(--font-sans)">
                  {shortMonth(month, locale)}
                </text>
              </>
            ) : null}
          </g>
        );
      })}
      {marked.map((charge) => {
        const [from, to] = [middle(charge.nominal), middle(charge.chargedOn)];
        const moved = charge.nominal !== charge.chargedOn && charge.reasons.some(({ kind }) => kind !== 'at-start');
        const key = `${charge.part} ${charge.nominal}`;
        const round = months.length > 1 ? 4.6 : 5.4;
        return (
          <g key={key}>
            {moved && from !== null && to !== null ? (
              <path d={`M${from} ${y}H${to}`} stroke="var(--dusk)" strokeWidth="1.2" />
            ) : null}
            {moved && from !== null ? (
              <circle
                cx={from}
                cy={y}
                r={round - 0.4}
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
                r={round}
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
    <span className={`block max-w-[150px] truncate ${alone ? 'leading-4' : 'leading-[17px]'}`} title={why || undefined}>
      {on}
      {why ? (
        <span className={`text-[11.5px] text-soft ${alone ? 'block truncate leading-[14px]' : 'ml-1.5'}`}>{why}</span>
      ) : null}
    </span>
  );
}

/**
 * Every charge drawn on a calendar, a month a line (a quarter, where the rhythm is long), with its day, the rule that moved it, and its sum beside it.
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
  const lines = calendarLines(charges);
  const folded = lines.some(({ months }) => months.length > 1);
  const left = new Map<string, number>();
  let rest = totalMinor ?? 0;
  for (const line of lines) {
    rest -= line.charges.reduce((sum, { minor }) => sum + minor, 0);
    left.set(line.key, rest);
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
      <table className="w-full min-w-[690px] border-collapse">
        <thead>
          <tr className="border-b border-ink text-[12px]/5 text-soft">
            <th scope="col" className={`text-left font-medium ${folded ? 'w-[84px]' : 'w-[56px]'}`}>
              <span className="sr-only">{folded ? 'Quarter' : 'Month'}</span>
            </th>
            <th scope="col" style={{ width: WIDE }}>
              <span className="sr-only">Days</span>
              {folded ? null : (
                <span aria-hidden="true" className="relative block h-4 text-[10.5px] font-normal">
                  {NAMED_DAYS.map((day) => (
                    <span key={day} className="absolute -translate-x-1/2" style={{ left: ((day - 0.5) * WIDE) / 31 }}>
                      {day}
                    </span>
                  ))}
                </span>
              )}
            </th>
            <th scope="col" className="pl-3 text-left font-medium">
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
          {lines.map((line) => {
            const few = line.charges.length <= FEW ? line.charges : [];
            const sum = line.charges.reduce((all, { minor }) => all + minor, 0);
            const newYear = line === lines[0] || line.key.endsWith('-01') || folded;
            return (
              <tr key={line.key} data-month={line.key}>
                <th scope="row" className="text-left font-serif text-[15px]/5 font-medium">
                  {shortMonth(line.key, locale)}
                  {folded ? `–${shortMonth(line.months.at(-1) ?? line.key, locale)}` : ''}
                  {newYear ? (
                    <span className="ml-1 text-[11.5px] font-normal text-soft">{line.key.slice(0, 4)}</span>
                  ) : null}
                </th>
                <td className="p-0">
                  <Strip
                    months={line.months}
                    holidays={off}
                    marked={charges.filter(({ nominal, chargedOn }) =>
                      line.months.some((month) => nominal.startsWith(month) || chargedOn.startsWith(month)),
                    )}
                    locale={locale}
                  />
                </td>
                <td className="pl-3 text-[13px]">
                  {few.length > 0 ? (
                    few.map((charge) => (
                      <ChargedOn
                        key={`${charge.part} ${charge.nominal}`}
                        on={shortDate(charge.chargedOn, locale, { weekday: true })}
                        why={reasonWords(charge, currency, locale)}
                        alone={few.length === 1}
                      />
                    ))
                  ) : line.charges.length > 0 ? (
                    <span title={line.charges.map(({ chargedOn }) => dayOf(chargedOn)).join(', ')}>
                      {line.charges.length} charges
                    </span>
                  ) : (
                    <span className="text-soft">none</span>
                  )}
                </td>
                <td className="pl-3 text-right font-serif text-[15px] font-medium">
                  {line.charges.length > 0 ? <Figure minor={sum} currency={currency} locale={locale} /> : null}
                </td>
                {totalMinor === null ? null : (
                  <td className="pl-3 text-right font-serif text-[15px] text-soft">
                    <Figure minor={left.get(line.key) ?? 0} currency={currency} locale={locale} />
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

'use client';
import dynamic from 'next/dynamic';
import { minorDigits } from '@/core/money/currency';
import { type Money, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { SumsBeside } from '../kit/sums-beside';

const FiguresChart = dynamic(() => import('./figures-chart').then((module) => module.FiguresChart), {
  ssr: false,
  loading: () => <div className="h-[260px]" />,
});

/** A month and kind of plan; sums in minor units. */
export type FigureMonth = {
  readonly month: string;
  readonly kind: 'membership' | 'instalments';
  /** By the day of the charge; of that still open. */
  readonly expected: number;
  readonly open: number;
  /** By the day on which it was received. */
  readonly received: number;
  readonly due: number;
  readonly refused: number;
  readonly recovered: number;
};

const percent = (part: number, whole: number): string =>
  whole === 0 ? 'none' : `${Math.round((part / whole) * 100)} %`;

/** What plans bring in by month and kind, what was refused and recovered, and who came and went. */
export function PlanFigures({
  currency,
  locale,
  months,
  beside,
  movements,
  members,
  thisMonth,
  since,
}: {
  currency: string;
  locale: string;
  months: readonly FigureMonth[];
  /** This month in other currencies. */
  beside: readonly { readonly received: Money; readonly expected: Money }[];
  movements: readonly { readonly month: string; readonly gained: number; readonly lost: number }[];
  members: number;
  thisMonth: string;
  since: string;
}) {
  // As far ahead as behind: what goes on for ever looks the same for ever.
  const known = [...new Set(months.map(({ month }) => month))].sort();
  const keys = known.slice(Math.max(0, known.indexOf(thisMonth) - 8), Math.max(0, known.indexOf(thisMonth)) + 5);
  const unit = 10 ** minorDigits(currency);
  const data = keys.map((key) => {
    const of = (kind: FigureMonth['kind']) => months.find((one) => one.month === key && one.kind === kind);
    const [member, part] = [of('membership'), of('instalments')];
    const open = (one: FigureMonth | undefined) => (one?.open ?? 0) / unit;
    return {
      month: monthName(key, locale),
      'Memberships, received': (member?.received ?? 0) / unit,
      'Instalments, received': (part?.received ?? 0) / unit,
      'Still expected': open(member) + open(part),
    };
  });
  const all = (of: (one: FigureMonth) => number) => months.reduce((sum, one) => sum + of(one), 0);
  const current = months.filter(({ month }) => month === thisMonth);
  const text = (minor: number) => moneyText(money(BigInt(minor), currency), locale);
  if (months.length === 0)
    return <p className="px-2 py-6 text-soft">Choose a plan, or make one. Its revenue stands here by month.</p>;
  return (
    <section className="sheet px-6 py-5 sm:px-8">
      <div className="flex items-baseline gap-4 border-b border-ink pb-1">
        <h1 className="title-section flex-1">Revenue of plans</h1>
        <a className="link" href="/files/plan-figures">
          The figures as CSV
        </a>
      </div>
      <dl className="my-4 flex flex-wrap gap-x-10 gap-y-3 [&_dd]:font-serif [&_dd]:text-[20px]/7 [&_dt]:text-[12.5px] [&_dt]:text-soft">
        <div>
          <dt>Received this month</dt>
          <dd className="private">
            {text(current.reduce((sum, { received }) => sum + received, 0))}
            <SumsBeside sums={beside.map(({ received }) => received)} locale={locale} />
          </dd>
        </div>
        <div>
          <dt>Expected this month</dt>
          <dd className="private">
            {text(current.reduce((sum, { expected }) => sum + expected, 0))}
            <SumsBeside sums={beside.map(({ expected }) => expected)} locale={locale} />
          </dd>
        </div>
        <div>
          <dt>Members now</dt>
          <dd>{members}</dd>
        </div>
        <div>
          <dt>Refused at first</dt>
          <dd>
            {percent(
              all(({ refused }) => refused),
              all(({ due }) => due),
            )}
          </dd>
        </div>
        <div>
          <dt>Of these recovered</dt>
          <dd>
            {percent(
              all(({ recovered }) => recovered),
              all(({ refused }) => refused),
            )}
          </dd>
        </div>
      </dl>
      <FiguresChart data={data} />
      <h2 className="mt-5 border-b border-ink pb-1 text-[13px] font-semibold">
        Members who came and went, since {since}
      </h2>
      <table className="mt-1 w-full max-w-[420px] text-[13px]">
        <thead>
          <tr className="text-soft">
            <th scope="col" className="text-left font-medium">
              Month
            </th>
            <th scope="col" className="text-right font-medium">
              Came
            </th>
            <th scope="col" className="text-right font-medium">
              Went
            </th>
          </tr>
        </thead>
        <tbody>
          {movements.map(({ month, gained, lost }) => (
            <tr key={month} className="border-b border-rule">
              <th scope="row" className="py-1 text-left font-normal">
                {monthName(month, locale)}
              </th>
              <td className="text-right">{gained}</td>
              <td className="text-right">{lost}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const monthName = (key: string, locale: string): string =>
  new Intl.DateTimeFormat(locale, { month: 'short', year: '2-digit', timeZone: 'UTC' }).format(
    new Date(`${key}-01T00:00:00Z`),
  );

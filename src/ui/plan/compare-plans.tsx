'use client';
import { useState } from 'react';
import { Bar, BarChart, CartesianGrid, Legend, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { shortDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { type Forecast, forecast, type PlanContext, type PlanSums } from '@/core/plan/plan';
import type { Schedule } from '@/core/schedule/schedule';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { SelectField } from '../kit/select';
import { type PlanTyped, rhythmWords, scheduleTyped, termsTyped } from './plan-typed';

/** What one variant changes of the plan. */
type Variant = { readonly count: string; readonly unit: Schedule['unit']; readonly every: string };

const COLOURS = ['var(--dusk)', 'var(--plum)', 'var(--ochre)', 'var(--leaf)'];
const MOST = 4;

const begun = (typed: PlanTyped): Variant[] =>
  typed.kind === 'instalments'
    ? ['3', '6', '12'].map((count) => ({ count, unit: typed.unit, every: typed.every }))
    : [
        { count: typed.count, unit: 'week', every: '1' },
        { count: typed.count, unit: 'month', every: '1' },
      ];

/** Two to four ways of charging the same side by side, with the money that comes in by month. */
export function ComparePlans({
  typed,
  sums,
  context,
  currency,
  locale,
  onTake,
}: {
  typed: PlanTyped;
  sums: PlanSums;
  context: PlanContext;
  currency: string;
  locale: string;
  onTake: (part: Partial<PlanTyped>) => void;
}) {
  const [variants, setVariants] = useState(() => begun(typed));
  const of = (variant: Variant): Forecast | null => {
    const read = scheduleTyped({ ...typed, ...variant, monthDays: variant.unit === typed.unit ? typed.monthDays : '' });
    if (!('schedule' in read)) return null;
    try {
      return forecast(termsTyped(typed, null, read.schedule), sums, context);
    } catch {
      return null; // more parts than coins: the column says that it does not work out
    }
  };
  const worked = variants.map((variant) => ({ variant, result: of(variant) }));
  const name = (at: number) => `Variant ${String.fromCharCode(65 + at)}`;
  const months = [...new Set(worked.flatMap(({ result }) => result?.months.map(({ month }) => month) ?? []))].sort();
  const data = months.slice(0, 24).map((month) => ({
    month: shortMonth(month, locale),
    ...Object.fromEntries(
      worked.map(({ result }, at) => [
        name(at),
        Number(result?.months.find((one) => one.month === month)?.minor ?? 0n) / 100,
      ]),
    ),
  }));
  const sum = (minor: bigint) => moneyText(money(minor, currency), locale);
  const set = (at: number, part: Partial<Variant>) =>
    setVariants(variants.map((one, index) => (index === at ? { ...one, ...part } : one)));
  return (
    <section aria-label="Compare" className="sheet mt-5 px-6 py-5 sm:px-8">
      <div className="flex items-baseline gap-4 border-b border-ink pb-1">
        <h2 className="title-section flex-1">Side by side</h2>
        {variants.length < MOST ? (
          <Button
            look="link"
            opens
            onClick={() => setVariants([...variants, { count: '24', unit: 'month', every: '1' }])}
          >
            Another variant
          </Button>
        ) : null}
      </div>
      <div className="mt-3 grid gap-5" style={{ gridTemplateColumns: `repeat(${variants.length}, minmax(0, 1fr))` }}>
        {worked.map(({ variant, result }, at) => (
          <div key={at} className="min-w-0">
            <h3 className="flex items-center gap-2 font-serif text-[16px]/6 font-medium">
              <span className="size-3 flex-none" style={{ background: COLOURS[at] }} aria-hidden="true" />
              {name(at)}
            </h3>
            <div className="mt-2 flex flex-wrap items-end gap-2">
              {typed.kind === 'instalments' || typed.ends === 'after' ? (
                <Field
                  label="Payments"
                  className="w-[80px]"
                  value={variant.count}
                  onChange={(event) => set(at, { count: event.target.value })}
                />
              ) : null}
              <Field
                label="Every"
                className="w-[54px]"
                value={variant.every}
                onChange={(event) => set(at, { every: event.target.value })}
              />
              <SelectField
                label="Unit"
                value={variant.unit}
                onChange={(event) => set(at, { unit: event.target.value as Schedule['unit'] })}
              >
                <option value="week">weeks</option>
                <option value="month">months</option>
                <option value="year">years</option>
              </SelectField>
            </div>
            {result && result.charges.length > 0 ? (
              <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 [&_dd]:text-right [&_dd]:font-serif [&_dt]:text-soft">
                <dt>{result.endless ? 'Goes on' : 'Payments'}</dt>
                <dd>{result.endless ? rhythmWords(variant) : result.count}</dd>
                <dt>Each</dt>
                <dd>{sum(result.charges.at(-1)?.amountMinor ?? 0n)}</dd>
                <dt>{result.endless ? 'Next twelve' : 'In all'}</dt>
                <dd>{sum(result.totalMinor)}</dd>
                <dt>Within a year</dt>
                <dd>{sum(result.comingYearMinor)}</dd>
                <dt>First</dt>
                <dd>{result.first ? shortDate(result.first, locale, { year: true }) : ''}</dd>
                <dt>Last</dt>
                <dd>{result.last ? shortDate(result.last, locale, { year: true }) : 'no end'}</dd>
              </dl>
            ) : (
              <p className="mt-3 text-brick">This does not work out.</p>
            )}
            <div className="mt-3 flex gap-4">
              <Button look="link" onClick={() => onTake(variant)}>
                Choose this one
              </Button>
              {variants.length > 2 ? (
                <Button
                  look="link"
                  aria-label={`Leave ${name(at)} out`}
                  onClick={() => setVariants(variants.filter((_, index) => index !== at))}
                >
                  Leave out
                </Button>
              ) : null}
            </div>
          </div>
        ))}
      </div>
      <figure className="mt-5" aria-label="Money coming in by month">
        <ResponsiveContainer width="100%" height={210}>
          <BarChart data={data} margin={{ left: 4, right: 4 }}>
            <CartesianGrid vertical={false} stroke="var(--rule)" />
            <XAxis dataKey="month" tick={{ fontSize: 11, fill: 'var(--ink-soft)' }} tickLine={false} />
            <YAxis width={54} tick={{ fontSize: 11, fill: 'var(--ink-soft)' }} tickLine={false} axisLine={false} />
            <Tooltip contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--rule)' }} />
            <Legend formatter={(name) => <span style={{ color: 'var(--ink)' }}>{name}</span>} />
            {worked.map((_, at) => (
              <Bar key={name(at)} dataKey={name(at)} fill={COLOURS[at] ?? 'var(--dusk)'} isAnimationActive={false} />
            ))}
          </BarChart>
        </ResponsiveContainer>
        <figcaption className="small text-soft">Money coming in by month</figcaption>
      </figure>
    </section>
  );
}

const shortMonth = (month: string, locale: string): string =>
  new Intl.DateTimeFormat(locale, { month: 'short', year: '2-digit', timeZone: 'UTC' }).format(
    new Date(`${month}-01T00:00:00Z`),
  );

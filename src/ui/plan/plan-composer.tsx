'use client';
import type { Route } from 'next';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { jsonMinor, money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { type Forecast, forecast } from '@/core/plan/plan';
import { dateTrouble, planReading } from '@/core/plan/sums';
import { type BusinessTax, taxClasses } from '@/core/tax/business-tax';
import type { Place } from '@/core/tax/tax-rules';
import { CustomerPicker } from '../composer/customer-picker';
import { Field, FieldError } from '../field';
import { Rosette } from '../rosette';
import { send, troubleOf } from '../send';
import { say, sayTrouble } from '../toasts';
import { ChargeCalendar } from './charge-calendar';
import type { DrawnCharge } from './charge-words';
import { PlanLines, PlanMore, PlanRhythm, Segment } from './plan-fields';
import { newTyped, type PlanTyped, scheduleTyped, termsTyped } from './plan-typed';
import { StartPlanDialog } from './start-plan';
import { usePlanKeeping } from './use-plan';

const ComparePlans = dynamic(() => import('./compare-plans').then((module) => module.ComparePlans), { ssr: false });

export type PlanComposerProps = {
  /** The kept draft, or null for a new plan. */
  readonly kept: { readonly id: string; readonly revision: number; readonly typed: PlanTyped } | null;
  readonly lineId: string;
  readonly customer: Customer | null;
  readonly taxes: readonly BusinessTax[];
  readonly currency: string;
  readonly pricesIncludeTax: boolean;
  readonly home: string;
  readonly homePlace: Place;
  readonly locale: string;
  readonly today: CalendarDate;
  readonly holidays: readonly string[];
  readonly fieldsUrl: string;
};

export const drawn = (charges: Forecast['charges']): DrawnCharge[] =>
  charges.map(({ amountMinor, ...charge }) => ({ ...charge, minor: jsonMinor(amountMinor) }));

/** A billing plan while it is composed: what is charged at the left, every date and sum drawn and listed at the right. */
export function PlanComposer(props: PlanComposerProps) {
  const { taxes, pricesIncludeTax, home, homePlace, locale, today, holidays } = props;
  const router = useRouter();
  const [customer, setCustomer] = useState(props.customer);
  const [typed, setTyped] = useState(props.kept?.typed ?? newTyped(today, props.lineId));
  const [comparing, setComparing] = useState(false);
  const [starting, setStarting] = useState(false);
  const [asked, setAsked] = useState(false);
  const [busy, setBusy] = useState(false);
  const change = (part: Partial<PlanTyped>) => setTyped((before) => ({ ...before, ...part }));

  const worked = useMemo(() => {
    const read = scheduleTyped(typed);
    const schedule =
      'schedule' in read
        ? read.schedule
        : { unit: 'month' as const, every: 1, start: today, ends: { after: 1 }, shift: 'none' as const };
    const terms = termsTyped(typed, customer?.id ?? null, schedule);
    const setting = {
      taxes,
      pricesIncludeTax,
      home: homePlace,
      customer,
      currency: customer?.currency || props.currency,
    };
    const { sums, currency, problems } = planReading(terms, setting);
    const context = { startsOn: today, holidays: holidays as CalendarDate[], pauses: [] };
    const trouble =
      'schedule' in read ? (sums.eachMinor > 0n ? dateTrouble(terms, sums, context) : null) : read.trouble;
    const result = 'schedule' in read && !trouble && sums.eachMinor > 0n ? forecast(terms, sums, context) : null;
    const field = 'schedule' in read ? 'schedule' : read.field;
    return { terms, sums, currency, problems, context, trouble, result, field };
  }, [typed, customer, taxes, pricesIncludeTax, homePlace, props.currency, today, holidays]);
  const { terms, sums, currency, problems, context, trouble, result } = worked;

  const words = customer ? { terms, memo: typed.memo, reference: typed.reference } : null;
  const keeping = usePlanKeeping(props.kept, words);
  // What is missing is said once somebody wants to go on, or where something typed cannot be read.
  const troubles: Record<string, string> = { ...(trouble ? { [worked.field]: trouble } : {}) };
  for (const problem of problems)
    if (asked || !['name', 'lines'].includes(problem.field)) troubles[problem.field] ??= problem.words;
  const ready = problems.length === 0 && !trouble && customer !== null;
  const sum = (minor: bigint) => moneyText(money(minor, currency), locale);

  async function goOn(then: (id: string) => Promise<void> | void) {
    setAsked(true);
    if (!ready) return;
    setBusy(true);
    const id = await keeping.keep();
    setBusy(false);
    if (id) await then(id);
  }

  async function sendLink(id: string) {
    const way = customer?.email ? 'mail' : 'link';
    const answer = await send('POST', `/api/plans/${id}/send`, { way });
    if (!answer.ok) return sayTrouble(troubleOf(answer));
    say(way === 'mail' ? `The link is on its way to ${customer?.email}` : 'Copy the link, and pass it on');
    router.push(`/ask/plans/${id}` as Route);
    router.refresh();
  }

  async function startByInvoice(id: string) {
    const answer = await send('POST', `/api/plans/${id}/start`, {});
    if (!answer.ok) return sayTrouble(troubleOf(answer));
    say('The plan has begun');
    router.push(`/ask/plans/${id}` as Route);
    router.refresh();
  }

  const byInvoice = typed.pay === 'invoice';
  const past = result?.charges.filter(({ chargedOn }) => chargedOn < context.startsOn).length ?? 0;
  return (
    <div className="mx-auto max-w-[1440px] px-4 pb-24 sm:px-7">
      <div className="flex min-h-[58px] flex-wrap items-center gap-x-4 gap-y-2 py-2">
        <Link className="link" href={'/ask/plans' as Route}>
          Billing plans
        </Link>
        <h1 className="title-screen min-w-0 truncate !text-[23px]/8">{typed.name || 'A new plan'}</h1>
        <Rosette state="Draft" />
        <span aria-live="polite" className="small flex-1 text-soft" data-keeping={keeping.changed ? 'waits' : 'kept'}>
          {!customer
            ? 'Choose who pays, and it is kept'
            : keeping.trouble
              ? keeping.trouble
              : keeping.changed
                ? 'Keeping …'
                : 'Draft, kept'}
        </span>
        <button type="button" className="link" aria-pressed={comparing} onClick={() => setComparing(!comparing)}>
          {comparing ? 'Do not compare' : 'Compare'}
        </button>
        {byInvoice ? (
          <button type="button" className="btn btn-go" disabled={busy} onClick={() => void goOn(startByInvoice)}>
            Start it
          </button>
        ) : (
          <>
            <button type="button" className="btn" disabled={busy} onClick={() => void goOn(() => setStarting(true))}>
              Start with a card now
            </button>
            <button type="button" className="btn btn-go" disabled={busy} onClick={() => void goOn(sendLink)}>
              {customer?.email ? 'Send the link' : 'Make the link'}
            </button>
          </>
        )}
      </div>
      <div className="grid gap-5 lg:grid-cols-[362px_minmax(0,1fr)]">
        <div className="sheet grid grid-cols-[minmax(0,1fr)] content-start gap-4 px-6 py-5 [&>*+*]:border-t [&>*+*]:border-rule [&>*+*]:pt-4">
          <div>
            <span className="label">Who pays</span>
            <CustomerPicker customer={customer} home={home} invalid={asked && !customer} onChoose={setCustomer} />
            {asked && !customer ? <FieldError>Choose who pays.</FieldError> : null}
          </div>
          <Field
            label="What for? The customer reads this"
            value={typed.name}
            maxLength={120}
            error={troubles.name}
            onChange={(event) => setTyped((before) => named(before, event.target.value))}
          />
          <div>
            <Segment
              label="Kind"
              value={typed.kind}
              choices={[
                ['membership', 'Membership'],
                ['instalments', 'Instalments'],
              ]}
              onChoose={(kind) => change({ kind })}
            />
          </div>
          <div>
            <PlanLines
              typed={typed}
              troubles={troubles}
              change={change}
              classes={taxClasses(taxes)}
              currency={currency}
            />
            {troubles.lines ? <FieldError>{troubles.lines}</FieldError> : null}
          </div>
          <div>
            <PlanRhythm typed={typed} troubles={troubles} change={change} hasHolidays={holidays.length > 0} />
            {troubles.schedule ? <FieldError>{troubles.schedule}</FieldError> : null}
          </div>
          <PlanMore typed={typed} troubles={troubles} change={change} leftText={leftText(result)} />
        </div>
        <div className="min-w-0">
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
                  totalMinor={typed.kind === 'instalments' ? jsonMinor(sums.eachMinor) : null}
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
          {comparing && sums.eachMinor > 0n ? (
            <ComparePlans
              key={typed.kind}
              typed={typed}
              sums={sums}
              context={context}
              currency={currency}
              locale={locale}
              onTake={(part) => change(typed.kind === 'instalments' ? { ...part, ends: 'after' } : part)}
            />
          ) : null}
        </div>
      </div>
      {starting && keeping.kept && customer ? (
        <StartPlanDialog
          planId={keeping.kept.id}
          customer={customer}
          what={typed.name}
          fieldsUrl={props.fieldsUrl}
          onClose={() => setStarting(false)}
        />
      ) : null}
    </div>
  );
}

/** The first line is called as the plan is, until somebody calls it otherwise. */
function named(typed: PlanTyped, name: string): PlanTyped {
  const [first, ...more] = typed.lines;
  const follows = first && (first.what === '' || first.what === typed.name);
  return { ...typed, name, lines: follows ? [{ ...first, what: name }, ...more] : typed.lines };
}

/** How many smallest coins do not divide, where they have to go somewhere. */
function leftText(result: Forecast | null): string {
  const amounts = result?.charges.filter(({ part }) => part === 'period').map(({ amountMinor }) => amountMinor) ?? [];
  const sorted = [...amounts].sort((a, b) => Number(a - b));
  const least = sorted[0] ?? 0n;
  const most = sorted.at(-1) ?? 0n;
  if (amounts.length < 2 || least === most) return '';
  const left = amounts.reduce((sum, one) => sum + (one - least), 0n);
  return `${left} ${left === 1n ? 'cent' : 'cents'} left over`;
}

/** What is unusual about the dates, in a sentence. */
function said(result: Forecast, locale: string): string {
  const count = (kind: string) =>
    result.charges.filter(({ reasons }) => reasons.some((one) => one.kind === kind)).length;
  const [ends, weekends, off] = [count('month-end'), count('weekend'), count('holiday')];
  const parts = [
    ends > 0 ? `${ends} ${ends === 1 ? 'month is' : 'months are'} too short` : '',
    weekends > 0 ? `${weekends} ${weekends === 1 ? 'date moves' : 'dates move'} off a weekend` : '',
    off > 0 ? `${off} ${off === 1 ? 'moves' : 'move'} off a day off` : '',
    result.last ? `the last is ${shortDate(result.last, locale, { year: true })}` : 'without an end',
  ];
  const text = parts.filter(Boolean).join('; ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

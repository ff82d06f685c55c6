'use client';
import type { Route } from 'next';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { homePlace } from '@/core/business/business';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { asFront, type House } from '@/core/front/front';
import { type Forecast, forecast } from '@/core/plan/plan';
import { dateTrouble, planReading } from '@/core/plan/sums';
import { type BusinessTax, taxClasses } from '@/core/tax/business-tax';
import { CustomerPicker } from '../composer/customer-picker';
import { Button } from '../kit/button';
import { Field, FieldError } from '../kit/field';
import { Segment } from '../kit/segment';
import { send, troubleOf } from '../kit/send';
import { say, sayTrouble } from '../kit/toasts';
import { FrontFields } from '../parts/front-fields';
import { Rosette } from '../rosette';
import { ScheduleFields } from '../schedule/schedule-fields';
import { EveryCharge } from './every-charge';
import { PlanLines, PlanMore } from './plan-fields';
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
  readonly house: House;
  readonly locale: string;
  readonly today: CalendarDate;
  readonly holidays: readonly string[];
  readonly fieldsUrl: string;
};

/** A billing plan while it is composed: what is charged at the left, every date and sum drawn and listed at the right. */
export function PlanComposer(props: PlanComposerProps) {
  const { taxes, pricesIncludeTax, house, locale, today, holidays } = props;
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
      home: homePlace(asFront(house, typed.paper)),
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
  }, [typed, customer, taxes, pricesIncludeTax, house, props.currency, today, holidays]);
  const { terms, sums, currency, problems, context, trouble, result } = worked;

  const words = customer ? { terms, memo: typed.memo, reference: typed.reference } : null;
  const keeping = usePlanKeeping(props.kept, words);
  // What is missing is said once somebody wants to go on, or where something typed cannot be read.
  const troubles: Record<string, string> = { ...(trouble ? { [worked.field]: trouble } : {}) };
  for (const problem of problems)
    if (asked || !['name', 'lines'].includes(problem.field)) troubles[problem.field] ??= problem.words;
  const ready = problems.length === 0 && !trouble && customer !== null;

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
            ? 'Choose who pays, and it is saved'
            : keeping.trouble
              ? keeping.trouble
              : keeping.changed
                ? 'Saving …'
                : 'Draft, saved'}
        </span>
        <Button look="link" aria-pressed={comparing} onClick={() => setComparing(!comparing)}>
          {comparing ? 'Do not compare' : 'Compare'}
        </Button>
        {byInvoice ? (
          <Button look="go" disabled={busy} onClick={() => void goOn(startByInvoice)}>
            Start it
          </Button>
        ) : (
          <>
            <Button disabled={busy} onClick={() => void goOn(() => setStarting(true))}>
              Start with a card now
            </Button>
            <Button look="go" disabled={busy} onClick={() => void goOn(sendLink)}>
              {customer?.email ? 'Send the link' : 'Make the link'}
            </Button>
          </>
        )}
      </div>
      <div className="grid gap-5 lg:grid-cols-[362px_minmax(0,1fr)]">
        <div className="sheet grid grid-cols-[minmax(0,1fr)] content-start gap-4 px-6 py-5 [&>*+*]:border-t [&>*+*]:border-rule [&>*+*]:pt-4">
          <div>
            <span className="label">Who pays</span>
            <CustomerPicker
              customer={customer}
              home={house.country}
              invalid={asked && !customer}
              onChoose={setCustomer}
            />
            {asked && !customer ? <FieldError>Choose who pays.</FieldError> : null}
            <FrontFields
              className="mt-3"
              house={house}
              chosen={typed.paper}
              onChange={(part) => change({ paper: { ...typed.paper, ...part } })}
            />
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
            <ScheduleFields
              typed={typed}
              troubles={troubles}
              mustEnd={typed.kind === 'instalments'}
              hasHolidays={holidays.length > 0}
              onChange={change}
            />
            {troubles.schedule ? <FieldError>{troubles.schedule}</FieldError> : null}
          </div>
          <PlanMore typed={typed} troubles={troubles} change={change} leftText={leftText(result)} />
        </div>
        <div className="min-w-0">
          <EveryCharge
            result={result}
            past={past}
            trouble={trouble}
            holidays={holidays}
            totalMinor={typed.kind === 'instalments' ? sums.eachMinor : null}
            currency={currency}
            locale={locale}
          />
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

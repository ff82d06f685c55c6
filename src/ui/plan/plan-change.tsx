'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { taxClasses } from '@/core/tax/business-tax';
import { Button } from '../kit/button';
import { TickField } from '../kit/check';
import { Field, FieldError } from '../kit/field';
import { send, troubleOf } from '../kit/send';
import { say } from '../kit/toasts';
import { ScheduleFields } from '../schedule/schedule-fields';
import { AuthorisationFields, givenSent, newGiven } from './authorisation-fields';
import type { PlanComposerProps } from './plan-composer';
import { PlanLines } from './plan-fields';
import { newTyped, type PlanTyped, scheduleTyped, termsTyped } from './plan-typed';

type Change = { readonly before: string; readonly after: string; readonly needsConsent: boolean };

const LOOK_PAUSE_MS = 350;

/** A running plan while it is changed: at the left what it is to be, at the right what that changes, and how the customer agrees. */
export function PlanChange(props: PlanComposerProps) {
  const { kept, customer, taxes, currency, holidays, today } = props;
  const router = useRouter();
  const [typed, setTyped] = useState<PlanTyped>(kept?.typed ?? newTyped(today, props.lineId));
  const [change, setChange] = useState<Change | null>(null);
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [here, setHere] = useState(false);
  const [given, setGiven] = useState(newGiven(customer?.name ?? ''));
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const set = (part: Partial<PlanTyped>) => setTyped((before) => ({ ...before, ...part }));
  const id = kept?.id ?? '';
  const parts = typed.kind === 'instalments';
  const read = scheduleTyped(typed);
  const wordsOf = () =>
    'schedule' in read
      ? {
          terms: termsTyped(typed, customer?.id ?? null, read.schedule),
          memo: typed.memo,
          reference: typed.reference,
          revision: kept?.revision ?? 0,
        }
      : null;

  // What it comes to is said while one types.
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is typed starts the clock, nothing else
  useEffect(() => {
    const words = wordsOf();
    if (!words) return setTroubles('trouble' in read ? { [read.field]: read.trouble } : {});
    const asked = new AbortController();
    const timer = setTimeout(async () => {
      const answer = await send<Change>('POST', `/api/plans/${id}/terms`, words, { signal: asked.signal });
      if (asked.signal.aborted) return;
      setChange(answer.ok ? answer.value : null);
      setTroubles(answer.ok ? {} : Object.fromEntries(answer.fields.map((one) => [one.field, one.words])));
    }, LOOK_PAUSE_MS);
    return () => {
      clearTimeout(timer);
      asked.abort();
    };
  }, [typed]);

  async function keep(): Promise<void> {
    const words = wordsOf();
    if (!words || !change) return;
    setBusy(true);
    const agreed = change.needsConsent && here ? await givenSent(given) : null;
    if (agreed && 'trouble' in agreed) {
      setBusy(false);
      return setTrouble(agreed.trouble);
    }
    const answer = await send<'changed' | 'asked'>('PUT', `/api/plans/${id}/terms`, {
      ...words,
      ...(agreed ? { given: agreed } : {}),
    });
    setBusy(false);
    setTrouble(troubleOf(answer));
    if (!answer.ok) return;
    say(
      answer.value === 'asked'
        ? `${customer?.name ?? 'The customer'} is asked to agree; until then everything stays as it is`
        : 'The plan is changed, and the customer is told',
    );
    router.push(`/ask/plans/${id}` as Route);
    router.refresh();
  }

  const same = change !== null && change.before === change.after;
  return (
    <div className="mx-auto max-w-[1100px] px-4 pb-24 sm:px-7">
      <div className="flex min-h-[58px] flex-wrap items-center gap-x-4 gap-y-2 py-2">
        <Link className="link" href={`/ask/plans/${id}` as Route}>
          The plan
        </Link>
        <h1 className="title-screen min-w-0 flex-1 truncate !text-[23px]/8">
          {typed.name}, {customer?.name}
        </h1>
        <Button look="go" disabled={busy || !change} onClick={() => void keep()}>
          {change?.needsConsent && !here ? 'Ask the customer to agree' : 'Save changes'}
        </Button>
      </div>
      <div className="grid gap-5 lg:grid-cols-[minmax(0,420px)_minmax(0,1fr)]">
        <div className="sheet grid grid-cols-[minmax(0,1fr)] content-start gap-4 px-6 py-5 [&>*+*]:border-t [&>*+*]:border-rule [&>*+*]:pt-4">
          <Field
            label="What for? The customer reads this"
            value={typed.name}
            maxLength={120}
            error={troubles.name}
            onChange={(event) => set({ name: event.target.value })}
          />
          {parts ? (
            <p className="text-soft">What the parts are of stands on the invoice, and is changed there.</p>
          ) : (
            <div>
              <PlanLines
                typed={typed}
                troubles={troubles}
                change={set}
                classes={taxClasses(taxes)}
                currency={currency}
              />
              {troubles.lines ? <FieldError>{troubles.lines}</FieldError> : null}
            </div>
          )}
          <div>
            <ScheduleFields
              typed={typed}
              troubles={troubles}
              mustEnd={parts}
              hasHolidays={holidays.length > 0}
              onChange={set}
            />
            {troubles.schedule ? <FieldError>{troubles.schedule}</FieldError> : null}
          </div>
          <div className="grid gap-3.5">
            <TickField
              label="A receipt by mail for every charge"
              checked={typed.receipts}
              onChange={(event) => set({ receipts: event.target.checked })}
            />
            {typed.pay === 'card' ? (
              <Field
                label="Tell the customer before each charge, in days"
                placeholder="not at all"
                inputMode="numeric"
                value={typed.noticeDays}
                onChange={(event) => set({ noticeDays: event.target.value })}
              />
            ) : null}
          </div>
        </div>
        <section aria-label="What changes" className="sheet content-start px-6 py-5 sm:px-7" aria-live="polite">
          <h2 className="title-section mb-3">What changes</h2>
          {change ? (
            <dl className="grid gap-3 [&_dd]:font-serif [&_dd]:text-[16px]/[24px] [&_dt]:text-[12.5px] [&_dt]:text-soft">
              <div>
                <dt>Until now</dt>
                <dd data-before="">{change.before}</dd>
              </div>
              <div>
                <dt>From now on</dt>
                <dd data-after="" className={same ? 'text-soft' : ''}>
                  {same ? 'The same dates and sums.' : change.after}
                </dd>
              </div>
            </dl>
          ) : (
            <p className="text-soft">
              {Object.values(troubles)[0] ?? 'Change something at the left: what it comes to appears here.'}
            </p>
          )}
          <p className="mt-4 text-soft">
            What is charged already stays, and so do dates that somebody moved, left out or priced.
          </p>
          {change?.needsConsent ? (
            <div className="mt-5 grid gap-4 border-t border-ink pt-4">
              <p>
                <b className="font-semibold">The customer has to agree:</b> the sum rises, the days change, or it goes
                on for longer. Until then everything stays as it is.
              </p>
              <TickField
                label="The customer agrees here and now"
                hint="Else they get a mail with the link on which they agree."
                checked={here}
                onChange={(event) => setHere(event.target.checked)}
              />
              {here ? <AuthorisationFields given={given} onChange={setGiven} /> : null}
            </div>
          ) : null}
          {trouble ? (
            <div className="mt-3" role="alert">
              <FieldError>{trouble}</FieldError>
            </div>
          ) : null}
        </section>
      </div>
    </div>
  );
}

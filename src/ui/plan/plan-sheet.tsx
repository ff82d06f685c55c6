'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useState } from 'react';
import { type CalendarDate, daysBetween } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { CHARGE_STATE_WORDS, PLAN_STATE_WORDS } from '@/core/plan/state';
import { Amount, Figure } from '../kit/amount';
import { Button } from '../kit/button';
import { RegisterLink } from '../register/register-link';
import { Rosette } from '../rosette';
import { ChargeActions } from './charge-actions';
import { ChargeCalendar } from './charge-calendar';
import { reasonWords } from './charge-words';
import { NextStep } from './next-step';
import { PlanActions } from './plan-actions';
import type { PlanSheetProps, SheetCharge } from './sheet-types';

/** A billing plan: how it stands, what is next, every charge with its attempts, cards and authorisations, timeline. */
export function PlanSheetView(props: PlanSheetProps) {
  const { plan, customer, charges, planned, holidays, cards, authorisations, invoice, locale, mayAsk } = props;
  const [drawn, setDrawn] = useState(false);
  const share = plan.plannedMinor ? plan.chargedMinor / plan.plannedMinor : plan.chargedCount > 0 ? 0.5 : 0;
  const refused = charges.filter(({ state }) => state === 'refused');
  const text = (minor: number) => moneyText(money(BigInt(minor), plan.currency), locale);
  const shown = charges.length > 0 ? charges : planned;
  return (
    <article className="sheet grid gap-x-8 px-6 py-5 sm:px-8 xl:grid-cols-[minmax(0,1fr)_228px]">
      <div className="min-w-0">
        <header className="flex flex-wrap items-start gap-4">
          <Rosette state={plan.state === 'draft' ? 'Draft' : PLAN_STATE_WORDS[plan.state]} share={share} size={54} />
          <div className="min-w-0 flex-1">
            <p className="text-soft">
              {plan.number} · {PLAN_STATE_WORDS[plan.state]}
            </p>
            <h1 className="title-screen !text-[25px]/8">{plan.name}</h1>
            <p>
              <Link className="link private" href={`/records/customers/${customer.id}` as Route}>
                {customer.name}
              </Link>
              {plan.reference ? <span className="text-soft"> · {plan.reference}</span> : null}
            </p>
          </div>
          <div className="text-right">
            <p className="font-serif text-[25px]/8 font-medium">
              <Amount minor={plan.chargedMinor} currency={plan.currency} locale={locale} />
            </p>
            <p className="text-soft">
              {plan.plannedMinor === null
                ? `${plan.chargedCount} charged`
                : `charged of ${text(plan.plannedMinor)}, ${plan.chargedCount} of ${plan.plannedCount}`}
            </p>
          </div>
        </header>
        <section aria-label="Next step" className="my-4 border-y border-ink py-3">
          <NextStep {...props} refused={refused} />
        </section>
        {mayAsk ? <PlanActions plan={plan} customer={customer} link={props.link} fieldsUrl={props.fieldsUrl} /> : null}
        <div className="mt-5 flex items-baseline gap-4 border-b border-ink pb-1">
          <h2 className="title-section flex-1">{charges.length > 0 ? 'Charges' : 'What will be charged'}</h2>
          {shown.length > 0 ? (
            <Button look="link" aria-pressed={drawn} onClick={() => setDrawn(!drawn)}>
              {drawn ? 'As a list' : 'On a calendar'}
            </Button>
          ) : null}
        </div>
        {drawn ? (
          <div className="mt-3">
            <ChargeCalendar
              charges={shown}
              holidays={holidays}
              totalMinor={null}
              currency={plan.currency}
              locale={locale}
            />
          </div>
        ) : charges.length > 0 ? (
          <ol aria-label="Charges">
            {charges.map((charge) => (
              <ChargeLine key={charge.id} charge={charge} {...props} />
            ))}
          </ol>
        ) : (
          <ol aria-label="Planned charges">
            {planned.map((charge) => (
              <li
                key={`${charge.part} ${charge.nominal}`}
                className="flex items-baseline gap-4 border-b border-rule py-1.5"
              >
                <span className="w-[124px] flex-none">
                  {shortDate(charge.chargedOn, locale, { weekday: true, year: true })}
                </span>
                <span className="small flex-1 text-soft">{reasonWords(charge, plan.currency, locale)}</span>
                <span className="font-serif">
                  <Figure minor={charge.minor} currency={plan.currency} locale={locale} />
                </span>
              </li>
            ))}
          </ol>
        )}
        <section className="mt-6 grid gap-6 sm:grid-cols-2">
          {plan.pay === 'card' ? (
            <div>
              <h2 className="border-b border-ink pb-1 text-[13px] font-semibold">Cards on file, tried in this order</h2>
              {cards.length === 0 ? <p className="py-2 text-soft">No card on file.</p> : null}
              <ol>
                {cards.map((card, at) => (
                  <li key={card.id} className="flex gap-3 border-b border-rule py-1.5">
                    <span className="font-serif">{at + 1}</span>
                    <span className={card.ending ? 'text-ochre' : ''}>{card.words}</span>
                    {card.state === 'refusing' ? <span className="text-brick">{card.trouble}</span> : null}
                  </li>
                ))}
              </ol>
            </div>
          ) : null}
          <div>
            <h2 className="border-b border-ink pb-1 text-[13px] font-semibold">
              {plan.pay === 'card' ? 'Authorisation and documents' : 'Documents'}
            </h2>
            {authorisations.length === 0 && plan.pay === 'card' ? (
              <p className="py-2 text-soft">Not given yet. Nothing is charged before.</p>
            ) : null}
            <ul>
              {authorisations.map((one) => (
                <li key={one.id} className="border-b border-rule py-1.5">
                  <span className="private">{one.words}</span>
                  {one.withdrawn ? <span className="block text-brick">Withdrawn {one.withdrawn}</span> : null}
                  <a className="link link-small block" href={`/files/authorisations/${one.id}`}>
                    As PDF
                  </a>
                </li>
              ))}
              <li className="border-b border-rule py-1.5">
                <RegisterLink of="planId" id={plan.id} called={plan.name}>
                  Payments of this plan
                </RegisterLink>
              </li>
              {invoice ? (
                <li className="border-b border-rule py-1.5">
                  <Link className="link" href={`/ask/invoices/${invoice.id}` as Route}>
                    Invoice {invoice.number}, over the whole
                  </Link>
                </li>
              ) : null}
            </ul>
            {plan.memo ? <p className="mt-3 whitespace-pre-wrap bg-wash px-3 py-2">{plan.memo}</p> : null}
          </div>
        </section>
      </div>
      <div className="mt-6 xl:mt-0">{props.timeline}</div>
    </article>
  );
}

const whenDue = (payBy: CalendarDate, today: CalendarDate, locale: string): string => {
  const late = daysBetween(payBy, today);
  return late > 0 ? `${late === 1 ? '1 day' : `${late} days`} late` : `to be paid by ${shortDate(payBy, locale)}`;
};

function ChargeLine({
  charge,
  plan,
  customer,
  cards,
  locale,
  today,
  mayAsk,
}: PlanSheetProps & { charge: SheetCharge }) {
  const open = charge.state === 'refused' || charge.state === 'upcoming' || charge.state === 'billed';
  const late = charge.payBy !== null && charge.payBy < today;
  const colour =
    charge.state === 'refused' || late ? 'text-brick' : charge.state === 'charged' ? 'text-leaf' : 'text-soft';
  return (
    <li className="border-b border-rule py-0.5" data-charge={charge.state}>
      <div className="flex min-h-8 flex-wrap items-center gap-x-4">
        <span className="w-[124px] flex-none">
          {shortDate(charge.chargedOn, locale, { weekday: true, year: true })}
        </span>
        <span className={`w-[86px] flex-none font-medium ${colour}`}>
          {charge.state === 'billed' && plan.kind === 'instalments' ? 'Asked for' : CHARGE_STATE_WORDS[charge.state]}
        </span>
        <span className="small min-w-0 flex-1 text-soft">
          {[
            reasonWords(charge, plan.currency, locale),
            charge.words,
            charge.next ? `next try ${charge.next}` : '',
            charge.payBy ? whenDue(charge.payBy, today, locale) : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
        <span className="font-serif">
          <Figure minor={charge.minor} currency={plan.currency} locale={locale} />
        </span>
        {mayAsk && open ? (
          <ChargeActions
            charge={charge}
            plan={plan}
            cards={cards}
            locale={locale}
            today={today}
            customer={customer.name}
          />
        ) : (
          <span className="w-8" />
        )}
      </div>
      {charge.attempts.length > 1 || charge.state === 'refused' ? (
        <ul className="small ml-[140px] text-soft" aria-label="Attempts">
          {charge.attempts.map((attempt) => (
            <li key={attempt.paymentId}>
              {attempt.when}: {attempt.words}
            </li>
          ))}
        </ul>
      ) : null}
    </li>
  );
}

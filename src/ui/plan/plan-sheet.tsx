'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { type ReactNode, useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { ShownCard } from '@/core/plan/shown-card';
import { CHARGE_STATE_WORDS, PLAN_STATE_WORDS } from '@/core/plan/state';
import { Amount, Figure } from '../amount';
import { Rosette } from '../rosette';
import { ChargeCalendar } from './charge-calendar';
import { ChargeDeeds } from './charge-deeds';
import { type DrawnCharge, reasonWords } from './charge-words';
import { PlanDeeds } from './plan-deeds';
import type { SheetCharge, SheetPlan } from './sheet-types';

type Props = {
  plan: SheetPlan;
  customer: { id: string; name: string; email: string; phone: string };
  charges: readonly SheetCharge[];
  /** What is planned while nothing is written down yet. */
  planned: readonly DrawnCharge[];
  holidays: readonly string[];
  cards: readonly ShownCard[];
  authorisations: readonly { id: string; words: string; withdrawn: string }[];
  invoice: { id: string; number: string } | null;
  link: string;
  locale: string;
  today: CalendarDate;
  fieldsUrl: string;
  mayAsk: boolean;
  timeline: ReactNode;
};

/** A billing plan: how it stands, what is next, every charge with its attempts, cards and authorisations, timeline. */
export function PlanSheetView(props: Props) {
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
        {mayAsk ? <PlanDeeds plan={plan} customer={customer} link={props.link} fieldsUrl={props.fieldsUrl} /> : null}
        <div className="mt-5 flex items-baseline gap-4 border-b border-ink pb-1">
          <h2 className="title-section flex-1">{charges.length > 0 ? 'Charges' : 'What will be charged'}</h2>
          {shown.length > 0 ? (
            <button type="button" className="link" aria-pressed={drawn} onClick={() => setDrawn(!drawn)}>
              {drawn ? 'As a list' : 'On a calendar'}
            </button>
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
          <div>
            <h2 className="border-b border-ink pb-1 text-[13px] font-semibold">Authorisation and documents</h2>
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

function NextStep({ plan, refused, link, locale, authorisations, cards }: Props & { refused: readonly SheetCharge[] }) {
  const first = refused[0];
  if (first)
    return (
      <p>
        <b className="font-semibold text-brick">
          {refused.length === 1 ? 'A charge is refused' : `${refused.length} charges are refused`}
        </b>
        , {first.trouble || first.words}.{' '}
        {first.next ? `Next try: ${first.next}.` : 'Nothing is tried by itself any more: it waits for you.'}
      </p>
    );
  if (plan.state === 'waiting')
    return (
      <p>
        Waiting for the customer to agree and enter a card
        {plan.lapsesOn ? `; it lapses after ${shortDate(plan.lapsesOn, locale)}` : ''}.{' '}
        <a className="link" href={link} target="_blank" rel="noreferrer">
          What the customer sees
        </a>
      </p>
    );
  if (plan.state === 'active' && plan.nextOn) {
    const ending = cards.length > 0 && cards.every((card) => card.ending || card.state !== 'good');
    return (
      <p>
        Next charge on <b className="font-semibold">{shortDate(plan.nextOn, locale, { weekday: true, year: true })}</b>
        {plan.pay === 'card' ? '' : plan.kind === 'instalments' ? ', asked for by mail' : ', as an invoice by mail'}.
        {ending && plan.pay === 'card' ? (
          <span className="text-ochre"> The card ends soon: ask for a new one.</span>
        ) : null}
      </p>
    );
  }
  if (plan.state === 'paused') return <p>Paused: nothing is charged until it is resumed.</p>;
  if (plan.state === 'draft') return <p>A draft: nobody has seen it yet.</p>;
  return (
    <p>
      {plan.state === 'finished' ? 'Everything planned is charged.' : 'Ended: nothing more is charged.'}
      {authorisations.some(({ withdrawn }) => withdrawn) ? ' The authorisation was withdrawn.' : ''}
    </p>
  );
}

function ChargeLine({ charge, plan, cards, locale, mayAsk }: Props & { charge: SheetCharge }) {
  const open = charge.state === 'refused' || charge.state === 'upcoming' || charge.state === 'billed';
  const colour = charge.state === 'refused' ? 'text-brick' : charge.state === 'charged' ? 'text-leaf' : 'text-soft';
  return (
    <li className="border-b border-rule py-0.5" data-charge={charge.state}>
      <div className="flex min-h-8 flex-wrap items-center gap-x-4">
        <span className="w-[124px] flex-none">
          {shortDate(charge.chargedOn, locale, { weekday: true, year: true })}
        </span>
        <span className={`w-[86px] flex-none font-medium ${colour}`}>{CHARGE_STATE_WORDS[charge.state]}</span>
        <span className="small min-w-0 flex-1 text-soft">
          {[reasonWords(charge, plan.currency, locale), charge.words, charge.next ? `next try ${charge.next}` : '']
            .filter(Boolean)
            .join(' · ')}
        </span>
        <span className="font-serif">
          <Figure minor={charge.minor} currency={plan.currency} locale={locale} />
        </span>
        {mayAsk && open ? (
          <ChargeDeeds charge={charge} plan={plan} cards={cards} locale={locale} />
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

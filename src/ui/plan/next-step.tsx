'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { shortDate } from '@/core/dates/date-text';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import type { PlanSheetProps, SheetCharge } from './sheet-types';

/** What was asked for by invoice and is not paid in time. */
function Late({
  late,
  invoice,
  plan,
  locale,
}: Pick<PlanSheetProps, 'invoice' | 'plan' | 'locale'> & { late: readonly SheetCharge[] }) {
  const sum = late.reduce((all, { minor }) => all + minor, 0);
  const id = invoice?.id ?? late[0]?.invoiceId;
  return (
    <p>
      <b className="font-semibold text-brick">
        {late.length === 1 ? 'One payment is late' : `${late.length} payments are late`}
      </b>
      : <Amount minor={sum} currency={plan.currency} locale={locale} /> is asked for and not paid.{' '}
      {id ? (
        <Link className="link" href={`/ask/invoices/${id}` as Route}>
          Remind the customer
        </Link>
      ) : null}
    </p>
  );
}

/** Charges that were missed while nothing ran: somebody decides, and reads what that charges. */
function Missed({ missed, plan, locale, mayAsk }: PlanSheetProps & { missed: readonly SheetCharge[] }) {
  const { busy, pressed } = usePress();
  const text = (charges: readonly SheetCharge[]) =>
    moneyText(money(BigInt(charges.reduce((all, { minor }) => all + minor, 0)), plan.currency), locale);
  const decide = (which: 'all' | 'last' | 'none', done: string) =>
    void pressed(`/api/plans/${plan.id}`, { action: 'missed', which }, done);
  return (
    <div>
      <p>
        <b className="font-semibold text-brick">
          {missed.length === 1 ? 'A charge was missed' : `${missed.length} charges were missed`}
        </b>{' '}
        while nothing was charged, from {shortDate(missed[0]?.chargedOn ?? plan.nextOn ?? ('' as never), locale)} on.
        None of them is taken before you decide.
      </p>
      {mayAsk ? (
        <p className="mt-2 flex flex-wrap gap-2">
          <Button disabled={busy} onClick={() => decide('all', 'They are being charged')}>
            Charge {missed.length === 1 ? 'it' : 'all'}: {text(missed)}
          </Button>
          {missed.length > 1 ? (
            <Button disabled={busy} onClick={() => decide('last', 'The last one is being charged')}>
              Only the last: {text(missed.slice(-1))}
            </Button>
          ) : null}
          <Button disabled={busy} onClick={() => decide('none', 'They are left out')}>
            Leave {missed.length === 1 ? 'it' : 'them'} out
          </Button>
        </p>
      ) : null}
    </div>
  );
}

/** A change waits until the customer agrees. */
function Proposed({ plan, link, mayAsk }: PlanSheetProps) {
  const { busy, pressed } = usePress();
  return (
    <p>
      A change waits until the customer agrees; until then everything stays as it is.{' '}
      <a className="link" href={link} target="_blank" rel="noreferrer">
        What the customer sees
      </a>{' '}
      {mayAsk ? (
        <Button
          look="link"
          disabled={busy}
          onClick={() => void pressed(`/api/plans/${plan.id}/terms`, {}, 'The change is withdrawn', 'DELETE')}
        >
          Withdraw it
        </Button>
      ) : null}
    </p>
  );
}

/** What is next with a plan, or what hinders it. */
export function NextStep(props: PlanSheetProps & { refused: readonly SheetCharge[] }) {
  const { plan, refused, link, locale, authorisations, cards, today } = props;
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
  if (plan.proposed) return <Proposed {...props} />;
  const missed = props.charges.filter(({ missed: was }) => was);
  if (missed.length > 0) return <Missed {...props} missed={missed} />;
  const late = props.charges.filter(({ payBy }) => payBy !== null && payBy < today);
  if (late.length > 0) return <Late {...props} late={late} />;
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
  if (plan.endsOn)
    return (
      <p>
        Cancelled: it runs until{' '}
        <b className="font-semibold">{shortDate(plan.endsOn, locale, { weekday: true, year: true })}</b>, and nothing
        more is charged.
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

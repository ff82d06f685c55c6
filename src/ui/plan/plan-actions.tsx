'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Radio } from '../kit/check';
import { DateField } from '../kit/date-field';
import { FormDialog } from '../kit/form-dialog';
import { NumberField } from '../kit/number-input';
import { usePress } from '../kit/press';
import { troubleOf } from '../kit/send';
import { say } from '../kit/toasts';
import { useMakeAndOpen } from '../make-and-open';
import type { SheetPlan } from './sheet-types';
import { StartPlanDialog } from './start-plan';

type Shown = '' | 'pause' | 'cancel' | 'withdraw' | 'price' | 'finish' | 'start';

/** What can be done with a plan as it stands. */
export function PlanActions({
  plan,
  customer,
  link,
  fieldsUrl,
}: {
  plan: SheetPlan;
  customer: { id: string; name: string; email: string; phone: string };
  link: string;
  fieldsUrl: string;
}) {
  const router = useRouter();
  const { makeAndOpen } = useMakeAndOpen();
  const { busy, press, pressed } = usePress();
  const [shown, setShown] = useState<Shown>('');
  const [later, setLater] = useState(true);
  const [until, setUntil] = useState('');
  const [keepOwed, setKeepOwed] = useState(false);
  const inParts = plan.kind === 'instalments' && plan.state !== 'waiting';
  const [price, setPrice] = useState(plan.price);

  /** Resolves with what went wrong, or an empty text. */
  async function action(name: string, done: string, more: object = {}): Promise<string> {
    const answer = await press(`/api/plans/${plan.id}`, { action: name, ...more }, done);
    if (answer.ok) setShown('');
    return troubleOf(answer);
  }
  const pressAction = (name: string, done: string) => pressed(`/api/plans/${plan.id}`, { action: name }, done);
  const sendLink = (way: 'mail' | 'text') => pressed(`/api/plans/${plan.id}/send`, { way }, 'The link is on its way');
  async function copy() {
    await navigator.clipboard.writeText(link);
    say('The link is copied');
  }
  const alive = plan.state === 'active' || plan.state === 'paused' || plan.state === 'waiting';
  const item = (words: string, onSelect: () => void) => (
    <DropdownMenu.Item className="menu-item" onSelect={onSelect}>
      {words}
    </DropdownMenu.Item>
  );
  const props = { busy, onClose: () => setShown('') };
  return (
    <div className="flex flex-wrap items-center gap-3">
      {plan.state === 'waiting' ? (
        <>
          {customer.email ? (
            <Button look="go" disabled={busy} onClick={() => void sendLink('mail')}>
              Send the link again
            </Button>
          ) : null}
          <Button onClick={() => void copy()}>Copy link</Button>
          <Button onClick={() => setShown('start')}>Start with a card now</Button>
        </>
      ) : null}
      {plan.state === 'active' ? (
        <Button disabled={busy} onClick={() => setShown('pause')}>
          Pause
        </Button>
      ) : null}
      {plan.state === 'paused' ? (
        <Button look="go" disabled={busy} onClick={() => void pressAction('resume', 'The plan goes on')}>
          Resume
        </Button>
      ) : null}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="btn">More</DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="menu" align="start" sideOffset={4}>
            {plan.state === 'waiting' && customer.phone ? item('Send it as a text', () => void sendLink('text')) : null}
            {(plan.state === 'active' || plan.state === 'paused') && !plan.endsOn
              ? item('Edit plan', () => router.push(`/ask/plans/change?plan=${plan.id}` as Route))
              : null}
            {plan.kind === 'membership' && (plan.state === 'active' || plan.state === 'paused')
              ? item('Another price', () => setShown('price'))
              : null}
            {plan.kind === 'instalments' && plan.state === 'active'
              ? item('Charge the rest now', () => setShown('finish'))
              : null}
            {item(
              'Copy',
              () =>
                void makeAndOpen(
                  `/api/plans/${plan.id}`,
                  { action: 'duplicate' },
                  (id) => `/ask/plans/compose?plan=${id}` as Route,
                ),
            )}
            {alive ? item('Cancel the plan', () => setShown('cancel')) : null}
            {alive && plan.pay === 'card' ? item('The customer withdraws', () => setShown('withdraw')) : null}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {shown === 'pause' ? (
        <FormDialog
          {...props}
          title="Pause the plan"
          about="What falls into the pause is left out, and nothing is charged for it later."
          action="Pause it"
          onSure={() => action('pause', 'The plan is paused', { until })}
        >
          <DateField label="Until, if you know it; it goes on by itself then" value={until} onDay={setUntil} />
        </FormDialog>
      ) : null}
      {shown === 'cancel' ? (
        <FormDialog
          {...props}
          title="Cancel the plan"
          about={
            inParts
              ? 'What was charged stays, and nothing more is charged.'
              : 'What was charged stays. What was refused or asked for is given up: credit notes take it off the invoices, and the customer is told.'
          }
          action="Cancel it"
          danger
          onSure={() => action(later && !inParts ? 'cancel-later' : 'cancel', 'The plan is cancelled', { keepOwed })}
        >
          {plan.kind === 'membership' && plan.state === 'active' ? (
            <fieldset className="grid gap-2">
              {[
                [true, 'After the period that is paid for'],
                [false, 'At once'],
              ].map(([value, words]) => (
                <label key={String(value)} className="flex items-center gap-2.5">
                  <Radio checked={later === value} onChange={() => setLater(value === true)} />
                  {words}
                </label>
              ))}
            </fieldset>
          ) : inParts ? (
            <fieldset className="grid gap-2">
              <legend className="label mb-1">What is left of the invoice</legend>
              {[
                [false, 'is given up, with a credit note to the customer'],
                [true, 'stays owed, to be paid by its link'],
              ].map(([value, words]) => (
                <label key={String(value)} className="flex items-center gap-2.5">
                  <Radio checked={keepOwed === value} onChange={() => setKeepOwed(value === true)} />
                  {words}
                </label>
              ))}
            </fieldset>
          ) : null}
        </FormDialog>
      ) : null}
      {shown === 'withdraw' ? (
        <FormDialog
          {...props}
          title="The customer withdraws"
          about="The authorisation is withdrawn as of now, the plan ends, and the customer is told by mail."
          action="Withdraw it"
          danger
          onSure={() => action('withdraw', 'The authorisation is withdrawn')}
        >
          {null}
        </FormDialog>
      ) : null}
      {shown === 'price' ? (
        <FormDialog
          {...props}
          title="Another price"
          about="From the next charge on. Tell your customer before you change it."
          action="Save the price"
          onSure={() => action('price', 'The price is changed from the next charge on', { price })}
        >
          <NumberField label="Price" value={price} onChange={(event) => setPrice(event.target.value)} />
        </FormDialog>
      ) : null}
      {shown === 'finish' ? (
        <FormDialog
          {...props}
          title="Charge the rest now"
          about="All parts that are still to come are charged at once, and the plan is finished."
          action="Charge them"
          onSure={() => action('finish-early', 'The rest is being charged')}
        >
          {null}
        </FormDialog>
      ) : null}
      {shown === 'start' ? (
        <StartPlanDialog
          planId={plan.id}
          customer={customer}
          what={plan.name}
          fieldsUrl={fieldsUrl}
          onClose={() => setShown('')}
        />
      ) : null}
    </div>
  );
}

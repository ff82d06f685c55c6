'use client';
import { Ellipsis } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { shortDate } from '@/core/dates/date-text';
import type { ReceivedBy } from '@/core/ledger/movements';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import type { ShownCard } from '@/core/plan/shown-card';
import { DateField } from '../kit/date-field';
import { Field } from '../kit/field';
import { FormDialog } from '../kit/form-dialog';
import { NumberField } from '../kit/number-input';
import { usePress } from '../kit/press';
import { SelectField } from '../kit/select';
import { troubleOf } from '../kit/send';
import type { SheetCharge, SheetPlan } from './sheet-types';

type Shown = '' | 'paid' | 'move' | 'waive' | 'price' | 'now';

/** What can be done with one charge that is not made yet. */
export function ChargeActions({
  charge,
  plan,
  cards,
  locale,
  today,
  customer,
}: {
  charge: SheetCharge;
  plan: SheetPlan;
  cards: readonly ShownCard[];
  locale: string;
  /** The business's day. */
  today: CalendarDate;
  customer: string;
}) {
  const { busy, press, pressed } = usePress();
  const [shown, setShown] = useState<Shown>('');
  const [by, setBy] = useState<ReceivedBy>('transfer');
  const [reference, setReference] = useState('');
  const [to, setTo] = useState<string>(charge.chargedOn);
  const [price, setPrice] = useState(plan.price);
  const [card, setCard] = useState<ShownCard | null>(null);
  const sum = moneyText(money(BigInt(charge.minor), plan.currency), locale);
  // Whether its hour has come is the server's to say; a day that is past or today's is asked about here.
  const isPast = to <= today;
  const day = shortDate(charge.chargedOn, locale, { weekday: true });

  /** Resolves with what went wrong, or an empty text. */
  async function action(name: string, done: string, more: object = {}): Promise<string> {
    const answer = await press(`/api/charges/${charge.id}`, { action: name, ...more }, done);
    if (answer.ok) setShown('');
    return troubleOf(answer);
  }
  const pressAction = (name: string, done: string, more: object = {}) =>
    pressed(`/api/charges/${charge.id}`, { action: name, ...more }, done);
  const item = (words: string, onSelect: () => void) => (
    <DropdownMenu.Item className="menu-item" onSelect={onSelect}>
      {words}
    </DropdownMenu.Item>
  );
  const props = { busy, onClose: () => setShown('') };
  const alive = plan.state === 'active';
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          className="grid size-8 flex-none place-items-center rounded-control hover:bg-wash"
          aria-label={`The charge of ${day}`}
        >
          <Ellipsis size={16} strokeWidth={1.6} aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="menu" align="end" sideOffset={4}>
            {alive && plan.pay === 'card' && charge.state !== 'billed'
              ? cards
                  .filter(({ state }) => state === 'good')
                  .map((card) => (
                    <DropdownMenu.Item
                      key={card.id}
                      className="menu-item"
                      onSelect={() => {
                        setCard(card);
                        setShown('now');
                      }}
                    >
                      Charge now: {card.words}
                    </DropdownMenu.Item>
                  ))
              : null}
            {item('Mark as paid', () => setShown('paid'))}
            {alive && charge.state !== 'billed' ? item('Charge it on another day', () => setShown('move')) : null}
            {alive && plan.kind === 'membership' && charge.state === 'upcoming' && charge.part === 'period'
              ? item('Another price, this once', () => setShown('price'))
              : null}
            {charge.state === 'upcoming' && charge.part === 'period'
              ? item('Leave this one out', () => void pressAction('skip', 'It is left out'))
              : null}
            {item('Waive it', () => setShown('waive'))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {shown === 'paid' ? (
        <FormDialog
          {...props}
          title="Mark as paid"
          about={`The charge of ${day} came in another way. The customer gets a receipt.`}
          action="Mark as paid"
          onSure={() => action('paid', 'It is marked as paid', { by, reference })}
        >
          <SelectField label="By" value={by} onChange={(event) => setBy(event.target.value as ReceivedBy)}>
            <option value="transfer">bank transfer</option>
            <option value="cash">cash</option>
            <option value="cheque">cheque</option>
            <option value="other">another way</option>
          </SelectField>
          <Field
            label="Reference"
            value={reference}
            maxLength={80}
            onChange={(event) => setReference(event.target.value)}
          />
        </FormDialog>
      ) : null}
      {shown === 'move' ? (
        <FormDialog
          {...props}
          title="Charge it on another day"
          about="The dates after it stay as they are, and this one stays there whatever else of the plan changes."
          action={isPast ? `Charge ${sum} now` : 'Move it'}
          onSure={() => action('move', 'It is moved', { to, ...(isPast ? { sure: true } : {}) })}
        >
          <DateField label="Day" value={to} onDay={(day) => setTo(day)} />
          {isPast ? (
            <p role="status" className="font-medium text-brick">
              This day does not come any more: {sum} is charged to {customer} at once.
            </p>
          ) : null}
        </FormDialog>
      ) : null}
      {shown === 'now' && card ? (
        <FormDialog
          {...props}
          title="Charge it now"
          about={`${sum} of ${day} is charged to ${customer} at once, to ${card.words}.`}
          action={`Charge ${sum}`}
          onSure={() => action('again', 'It is being charged', { cardId: card.id })}
        >
          {null}
        </FormDialog>
      ) : null}
      {shown === 'price' ? (
        <FormDialog
          {...props}
          title="Another price, this once"
          about={`Only the charge of ${day} changes, and it stays so whatever else of the plan changes. Tell your customer before.`}
          action="Change this once"
          onSure={() => action('price', 'The price is changed for this charge', { price })}
        >
          <NumberField label="Price" value={price} onChange={(event) => setPrice(event.target.value)} />
        </FormDialog>
      ) : null}
      {shown === 'waive' ? (
        <FormDialog
          {...props}
          title="Waive it"
          about={`The charge of ${day}, ${sum}, is given up for good. ${charge.invoiceId ? 'A credit note takes it off its invoice, and the customer gets it by mail.' : 'It is not billed.'}`}
          action="Waive it"
          danger
          onSure={() => action('waive', 'It is waived')}
        >
          {null}
        </FormDialog>
      ) : null}
    </>
  );
}

'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import type { ShownCard } from '@/core/plan/shown-card';
import { Button } from '../kit/button';
import { FormDialog } from '../kit/form-dialog';
import { usePress } from '../kit/press';
import { send, troubleOf } from '../kit/send';
import { say } from '../kit/toasts';
import { AuthorisationFields, givenSent, newGiven } from '../plan/authorisation-fields';
import { CardEntry, type CardEntryHandle } from '../plan/card-entry';
import { DeskPayment } from './desk-payment';

type Props = {
  customer: { id: string; name: string; email: string; phone: string };
  cards: readonly ShownCard[];
  /** `charges` where it runs and charges a card. */
  plans: readonly { id: string; name: string; state: string; charges: boolean }[];
  authorisations: readonly { id: string; words: string; withdrawn: string }[];
  /** The customer's own page; for passing on. */
  ownPage: string;
  fieldsUrl: string;
  /** Whether the business's prices hold their tax. */
  pricesIncludeTax: boolean;
  locale: string;
  mayAsk: boolean;
};

/** A customer's cards on file in the order in which they are tried, plans, authorisations; a payment at the desk. */
export function CustomerCards(props: Props) {
  const { customer, cards, plans, authorisations, ownPage, fieldsUrl, pricesIncludeTax, locale, mayAsk } = props;
  const { busy, press, pressed } = usePress();
  const [shown, setShown] = useState<'' | 'add' | 'pay'>('');
  const [leaving, setLeaving] = useState<ShownCard | null>(null);
  const needing = plans.filter(({ charges }) => charges).map(({ name }) => name);
  const others = cards.filter(({ id, state }) => id !== leaving?.id && state === 'good').length;

  const move = (at: number) => {
    const ids = cards.map(({ id }) => id);
    const [card] = ids.splice(at, 1);
    if (card) ids.splice(at - 1, 0, card);
    return pressed('/api/cards', { customerId: customer.id, ids }, 'The order is changed', 'PUT');
  };
  return (
    <section className="mt-7">
      <div className="flex flex-wrap items-baseline gap-x-5 border-b border-ink pb-1">
        <h2 className="title-section flex-1">Cards and plans</h2>
        {mayAsk ? (
          <>
            <Button look="link" onClick={() => setShown('pay')}>
              Take a card payment
            </Button>
            <Button look="link" onClick={() => setShown('add')}>
              Add a card
            </Button>
            <Link className="link" href={`/ask/plans/compose?customer=${customer.id}` as Route}>
              New plan
            </Link>
          </>
        ) : null}
      </div>
      {cards.length === 0 ? <p className="py-2 text-soft">No card on file.</p> : null}
      <ol>
        {cards.map((card, at) => (
          <li key={card.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
            <span className="w-4 font-serif">{at + 1}</span>
            <span className={`flex-1 ${card.ending ? 'text-ochre' : ''}`}>
              {card.words}
              {card.trouble ? <span className="ml-2 text-brick">{card.trouble}</span> : null}
            </span>
            {mayAsk && at > 0 ? (
              <Button look="small-link" disabled={busy} onClick={() => void move(at)}>
                Try it earlier
              </Button>
            ) : null}
            {mayAsk ? (
              <Button look="small-link" disabled={busy} onClick={() => setLeaving(card)}>
                Remove
              </Button>
            ) : null}
          </li>
        ))}
      </ol>
      <ul>
        {plans.map((plan) => (
          <li key={plan.id} className="flex items-baseline gap-4 border-b border-rule py-1.5">
            <Link className="link flex-1" href={`/ask/plans/${plan.id}` as Route}>
              {plan.name}
            </Link>
            <span className="text-soft">{plan.state}</span>
          </li>
        ))}
        {authorisations.map((one) => (
          <li key={one.id} className="flex items-baseline gap-4 border-b border-rule py-1.5">
            <a className="link flex-1" href={`/files/authorisations/${one.id}`}>
              Authorisation, {one.words}
            </a>
            <span className="text-brick">{one.withdrawn ? `withdrawn ${one.withdrawn}` : ''}</span>
          </li>
        ))}
      </ul>
      {mayAsk || cards.length > 0 ? (
        <p className="mt-2 flex flex-wrap gap-x-5">
          <Button
            look="link"
            onClick={async () => {
              await navigator.clipboard.writeText(ownPage);
              say('The link to the customer’s own page is copied; it is good for 7 days');
            }}
          >
            Copy the link to their own page, for a new card
          </Button>
          {customer.email && mayAsk ? (
            <Button
              look="link"
              disabled={busy}
              onClick={() =>
                void pressed(
                  `/api/customers/${customer.id}/own-page`,
                  { way: 'mail' },
                  `The link is on its way to ${customer.email}`,
                )
              }
            >
              Mail it
            </Button>
          ) : null}
          {customer.phone && mayAsk ? (
            <Button
              look="link"
              disabled={busy}
              onClick={() =>
                void pressed(
                  `/api/customers/${customer.id}/own-page`,
                  { way: 'text' },
                  `The link is on its way to ${customer.phone}`,
                )
              }
            >
              Send it as a text
            </Button>
          ) : null}
        </p>
      ) : null}
      {leaving ? (
        <FormDialog
          title="Remove the card"
          about={`${leaving.words}, of ${customer.name}. The card processor drops it too: it cannot be brought back, only be given again.`}
          action="Remove it"
          danger
          busy={busy}
          onClose={() => setLeaving(null)}
          onSure={async () => {
            const answer = await press(`/api/cards/${leaving.id}`, {}, 'The card is removed', 'DELETE');
            if (answer.ok) setLeaving(null);
            return troubleOf(answer);
          }}
        >
          {needing.length > 0 ? (
            <p>
              <b className="font-semibold">{needing.join(', ')}</b>{' '}
              {others > 0
                ? `${needing.length === 1 ? 'is' : 'are'} charged to another card on file from then on, where there is one for it.`
                : `${needing.length === 1 ? 'has' : 'have'} no card then: the next charge is refused until the customer gives another.`}
            </p>
          ) : (
            'No plan is charged to it.'
          )}
        </FormDialog>
      ) : null}
      {shown === 'add' ? (
        <AddCard customer={customer} fieldsUrl={fieldsUrl} onClose={() => setShown('')} />
      ) : shown === 'pay' ? (
        <DeskPayment
          customer={customer}
          cards={cards}
          fieldsUrl={fieldsUrl}
          pricesIncludeTax={pricesIncludeTax}
          locale={locale}
          onClose={() => setShown('')}
        />
      ) : null}
    </section>
  );
}

function AddCard({ customer, fieldsUrl, onClose }: Pick<Props, 'customer' | 'fieldsUrl'> & { onClose: () => void }) {
  const router = useRouter();
  const [given, setGiven] = useState(newGiven(customer.name));
  const [busy, setBusy] = useState(false);
  const entry = useRef<CardEntryHandle>(null);
  const key = useRef(crypto.randomUUID());

  async function add(): Promise<string> {
    setBusy(true);
    const agreed = await givenSent(given);
    const token = 'trouble' in agreed ? agreed : ((await entry.current?.token()) ?? { trouble: 'Type the card.' });
    if ('trouble' in token) {
      setBusy(false);
      return token.trouble ?? 'Complete the card’s fields.';
    }
    const cardToken = 'token' in token ? token.token : '';
    const answer = await send('POST', '/api/cards', {
      customerId: customer.id,
      cardToken,
      key: key.current,
      given: agreed,
    });
    setBusy(false);
    if (!answer.ok) return troubleOf(answer);
    say('The card is on file');
    onClose();
    router.refresh();
    return '';
  }
  return (
    <FormDialog
      title="Add a card"
      about={`For purchases that ${customer.name} orders. Without an authorisation no card is kept.`}
      action="Put it on file"
      busy={busy}
      onClose={onClose}
      onSure={add}
    >
      <CardEntry fieldsUrl={fieldsUrl} handle={entry} />
      <AuthorisationFields
        given={given}
        paper={`/files/authorisations/new?customer=${customer.id}`}
        onChange={setGiven}
      />
    </FormDialog>
  );
}

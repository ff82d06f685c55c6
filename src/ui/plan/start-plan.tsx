'use client';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { Customer } from '@/core/customer/customer';
import type { ShownCard } from '@/core/plan/shown-card';
import { FormDialog } from '../kit/form-dialog';
import { send, troubleOf } from '../kit/send';
import { say } from '../kit/toasts';
import { AuthorisationFields, givenSent, newGiven } from './authorisation-fields';
import { CardChoice, type CardChoiceHandle } from './card-choice';

type Agreement = { readonly text: string; readonly script: string };

/** Starts a plan at the desk: with a card on file or one typed now, and how the customer agreed. */
export function StartPlanDialog({
  planId,
  customer,
  what,
  fieldsUrl,
  onClose,
}: {
  planId: string;
  customer: Pick<Customer, 'id' | 'name'>;
  what: string;
  fieldsUrl: string;
  onClose: () => void;
}) {
  const router = useRouter();
  const [cards, setCards] = useState<readonly ShownCard[] | null>(null);
  const [given, setGiven] = useState(newGiven(customer.name));
  const [agreement, setAgreement] = useState<Agreement | null>(null);
  const [secondId, setSecondId] = useState('');
  const [busy, setBusy] = useState(false);
  const choice = useRef<CardChoiceHandle>(null);
  // The same press, sent twice, keeps one card.
  const key = useRef(crypto.randomUUID());
  useEffect(() => {
    void send<ShownCard[]>('GET', `/api/cards?customerId=${customer.id}`).then((answer) => {
      setCards(answer.ok ? answer.value : []);
    });
    void send<Agreement>('GET', `/api/plans/${planId}/agreement`).then((answer) => {
      if (answer.ok) setAgreement(answer.value);
    });
  }, [customer.id, planId]);

  async function start(): Promise<string> {
    setBusy(true);
    const agreed = await givenSent(given);
    const card = 'trouble' in agreed ? agreed : ((await choice.current?.chosen()) ?? { trouble: 'Type the card.' });
    if ('trouble' in card) {
      setBusy(false);
      return card.trouble;
    }
    const body = 'cardToken' in card ? { ...card, key: key.current } : card;
    const answer = await send('POST', `/api/plans/${planId}/start`, {
      card: body,
      given: agreed,
      ...(secondId ? { secondId } : {}),
    });
    setBusy(false);
    if (!answer.ok) return troubleOf(answer);
    say(`${what} has begun`);
    router.push(`/ask/plans/${planId}` as Route);
    router.refresh();
    return '';
  }

  return (
    <FormDialog
      title="Start with a card now"
      about={`${what}, for ${customer.name}. Without the customer’s authorisation no card is kept.`}
      action="Start the plan"
      busy={busy}
      disabled={cards === null || agreement === null}
      onClose={onClose}
      onSure={start}
    >
      {cards ? (
        <CardChoice
          cards={cards}
          fieldsUrl={fieldsUrl}
          handle={choice}
          second={{ id: secondId, choose: setSecondId }}
        />
      ) : null}
      {agreement ? (
        <div>
          <p className="label mb-1">{given.how === 'telephone' ? 'Read this out' : 'What the customer agrees to'}</p>
          <section
            aria-label="The agreement"
            // Scrolled by keyboard too.
            tabIndex={0}
            className="max-h-80 overflow-y-auto whitespace-pre-line bg-wash px-3.5 py-2.5 font-serif text-[14.5px]/[21px]"
          >
            {given.how === 'telephone' ? agreement.script : agreement.text}
          </section>
        </div>
      ) : null}
      <AuthorisationFields given={given} paper={`/files/authorisations/new?plan=${planId}`} onChange={setGiven} />
    </FormDialog>
  );
}

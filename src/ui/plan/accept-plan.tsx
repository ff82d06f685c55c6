'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { Button } from '../kit/button';
import { send } from '../kit/send';
import { type Troubles, troubleWords } from '../payer/trouble-words';
import { AgreedBy, AgreeTick } from './agree-fields';
import { CardEntry, type CardEntryHandle } from './card-entry';

/** What the customer's form says; strings only, so that they reach the browser. */
export type AcceptWords = Readonly<
  Record<
    | 'agree'
    | 'yourName'
    | 'yourCard'
    | 'begin'
    | 'nameNeeded'
    | 'agreeNeeded'
    | 'processorAway'
    | 'cardFields'
    | 'cardSilent'
    | 'sending'
    | 'cardGoes',
    string
  >
> & { readonly troubles: Troubles };

/** The customer agrees with their name, enters the card in the processor's fields, and begins. */
export function AcceptPlan({
  path,
  agreement,
  fieldsUrl,
  words,
  action,
  lang,
}: {
  /** Where it is sent. */
  path: string;
  agreement: string;
  fieldsUrl: string;
  words: AcceptWords;
  /** What else is sent with it. */
  action?: string;
  /** In which language it is read. */
  lang?: string;
}) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [agrees, setAgrees] = useState(false);
  const [troubles, setTroubles] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  const card = useRef<CardEntryHandle>(null);
  const key = useRef('');

  /** What is wrong at a place is put right: it is said no more. */
  const put = (field: string) => setTroubles(({ [field]: _, ...more }) => more);

  async function begin() {
    const missing = {
      ...(agrees ? {} : { agree: words.agreeNeeded }),
      ...(name.trim() ? {} : { name: words.nameNeeded }),
    };
    setTroubles(missing);
    if (Object.keys(missing).length > 0 || busy) return;
    setBusy(true);
    const given = (await card.current?.token()) ?? { trouble: words.cardSilent };
    if (!('token' in given)) {
      setTroubles(given.trouble ? { card: given.trouble } : {});
      setBusy(false);
      return;
    }
    key.current ||= crypto.randomUUID();
    const answer = await send('POST', path, {
      ...(action ? { action } : {}),
      ...(lang ? { lang } : {}),
      cardToken: given.token,
      key: key.current,
      name: name.trim(),
      agrees,
    });
    if (!answer.ok) {
      if (answer.code === 'card-not-kept') key.current = '';
      setTroubles({ card: troubleWords(words.troubles, answer) });
      setBusy(false);
      return;
    }
    key.current = '';
    setBusy(false);
    router.refresh();
  }

  return (
    <form
      className="grid gap-4"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void begin();
      }}
    >
      <div>
        <p className="whitespace-pre-line bg-wash px-4 py-3 font-serif text-[16px]/6">{agreement}</p>
        <div className="mt-3">
          <AgreeTick
            words={words}
            agrees={agrees}
            trouble={troubles.agree}
            onAgree={(now) => {
              setAgrees(now);
              put('agree');
            }}
          />
        </div>
      </div>
      <AgreedBy
        words={words}
        name={name}
        trouble={troubles.name}
        onName={(now) => {
          setName(now);
          put('name');
        }}
      />
      <div>
        <span className="mb-1 block text-[15px] font-medium">{words.yourCard}</span>
        <CardEntry fieldsUrl={fieldsUrl} words={words} handle={card} />
        {troubles.card ? (
          <p role="alert" className="mb-3 border border-brick px-3.5 py-2.5 font-medium text-brick">
            {troubles.card}
          </p>
        ) : null}
        <Button type="submit" look="go" size="tall" disabled={busy}>
          {busy ? words.sending : words.begin}
        </Button>
        <p className="mt-2 text-center text-[13px]/5 text-soft">{words.cardGoes}</p>
      </div>
    </form>
  );
}

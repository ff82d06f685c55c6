'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { send } from '../kit/send';
import { troubleWords } from '../payer/trouble-words';
import type { AcceptWords } from './accept-plan';
import { AgreedBy, AgreeTick } from './agree-fields';

/** The customer agrees with their name to a change of a plan that runs; the card stays. */
export function AcceptChange({ path, words }: { path: string; words: AcceptWords }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [agrees, setAgrees] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  return (
    <form
      className="grid gap-4"
      noValidate
      onSubmit={async (event) => {
        event.preventDefault();
        const missing = agrees ? (name.trim() ? '' : words.nameNeeded) : words.agreeNeeded;
        setTrouble(missing);
        if (missing || busy) return;
        setBusy(true);
        const answer = await send('POST', path, { name: name.trim(), agrees });
        setBusy(false);
        setTrouble(troubleWords(words.troubles, answer));
        if (answer.ok) router.refresh();
      }}
    >
      <AgreeTick
        words={words}
        agrees={agrees}
        onAgree={(now) => {
          setAgrees(now);
          setTrouble('');
        }}
      />
      <AgreedBy
        words={words}
        name={name}
        onName={(now) => {
          setName(now);
          setTrouble('');
        }}
      />
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <Button type="submit" look="go" size="tall" disabled={busy}>
        {busy ? words.sending : words.begin}
      </Button>
    </form>
  );
}

'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Check } from '../kit/check';
import { FieldError } from '../kit/field';
import { send } from '../kit/send';
import { troubleWords } from '../payer/trouble-words';
import type { AcceptWords } from './accept-plan';

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
      <label className="flex min-h-11 items-center gap-3 text-[16px]">
        <Check
          tall
          checked={agrees}
          onChange={(event) => {
            setAgrees(event.target.checked);
            setTrouble('');
          }}
        />
        {words.agree}
      </label>
      <div>
        <label className="mb-1 block text-[15px] font-medium" htmlFor="agreed-by">
          {words.yourName}
        </label>
        <input
          id="agreed-by"
          className="input min-h-11 !text-[16px]"
          autoComplete="name"
          maxLength={120}
          value={name}
          onChange={(event) => {
            setName(event.target.value);
            setTrouble('');
          }}
        />
      </div>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <Button type="submit" look="go" size="tall" disabled={busy}>
        {busy ? words.sending : words.begin}
      </Button>
    </form>
  );
}

'use client';
import { useState } from 'react';
import type { Way } from '@/core/person/steps';
import { Button } from '../kit/button';
import { Field, FieldError } from '../kit/field';
import { type Answer, troubleOf } from '../kit/send';
import { askedPasskey } from './passkey';

type AnyWay = Way | 'password';

const FIELDS: Readonly<Record<Exclude<AnyWay, 'passkey'>, { label: string; hint: string; autoComplete: string }>> = {
  app: {
    label: 'Code of your authenticator app',
    hint: 'Six figures; a new one comes every half minute.',
    autoComplete: 'one-time-code',
  },
  recovery: {
    label: 'Recovery code',
    hint: 'Ten signs, such as 7K3QA-9XT0M. Each is good once.',
    autoComplete: 'off',
  },
  password: { label: 'Your password', hint: '', autoComplete: 'current-password' },
};

const INSTEAD: Readonly<Record<AnyWay, string>> = {
  app: 'Code of the app instead',
  recovery: 'Recovery code instead',
  passkey: 'Passkey instead',
  password: 'Password instead',
};

/** Shows who one is by one of the ways that are open: a passkey, a code, or the password. */
export function StepForm({
  ways,
  ask,
  action,
  onGiven,
}: {
  ways: readonly AnyWay[];
  /** Where the question to a passkey comes from, and what is sent along. */
  ask: { readonly path: string; readonly body: object };
  action: string;
  /** Sends what was given; the answer says what was wrong with it. */
  onGiven: (given: object) => Promise<Answer<unknown>>;
}) {
  const [way, setWay] = useState<AnyWay>(ways[0] ?? 'recovery');
  const [code, setCode] = useState('');
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const give = async () => {
    setBusy(true);
    setTrouble('');
    const asked = way === 'passkey' ? await askedPasskey(ask.path, ask.body) : null;
    const answer = asked && !asked.ok ? asked : await onGiven(asked?.ok ? { way, ...asked.value } : { way, code });
    setTrouble(troubleOf(answer));
    // Until the next page is there.
    if (!answer.ok) setBusy(false);
  };
  const field = way === 'passkey' ? null : FIELDS[way];
  return (
    <form
      noValidate
      className="grid gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        event.stopPropagation();
        void give();
      }}
    >
      {field ? (
        <Field
          key={way}
          label={field.label}
          {...(field.hint ? { hint: field.hint } : {})}
          name={way === 'password' ? 'password' : 'code'}
          type={way === 'password' ? 'password' : 'text'}
          inputMode={way === 'app' ? 'numeric' : 'text'}
          autoComplete={field.autoComplete}
          maxLength={way === 'password' ? 200 : 40}
          autoFocus
          value={code}
          error={trouble || undefined}
          onChange={(event) => setCode(event.target.value)}
        />
      ) : (
        <div>
          <p>Your device asks for its passkey: by finger, face or its own code.</p>
          {trouble ? <FieldError>{trouble}</FieldError> : null}
        </div>
      )}
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
        <Button type="submit" look="go" busy={busy} busyWords="One moment" disabled={way !== 'passkey' && !code.trim()}>
          {way === 'passkey' ? 'Use the passkey' : action}
        </Button>
        {ways
          .filter((one) => one !== way)
          .map((one) => (
            <Button
              key={one}
              look="link"
              disabled={busy}
              onClick={() => {
                setWay(one);
                setCode('');
                setTrouble('');
              }}
            >
              {INSTEAD[one]}
            </Button>
          ))}
      </div>
    </form>
  );
}

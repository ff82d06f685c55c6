'use client';
import { type ReactNode, useState } from 'react';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { send, troubleOf } from '../kit/send';

/** What a link of a mail is for, done by a press: programs that look through mail follow every link, and press nothing. */
export function LinkPress<Value>({
  path,
  token,
  action,
  busyWords = 'One moment',
  done,
}: {
  path: string;
  token: string;
  action: string;
  busyWords?: string;
  /** What stands there once it is done. */
  done: (value: Value) => ReactNode;
}) {
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [outcome, setOutcome] = useState<{ readonly value: Value } | null>(null);
  const press = async () => {
    setBusy(true);
    const answer = await send<Value>('POST', path, { token });
    setTrouble(troubleOf(answer));
    setBusy(false);
    if (answer.ok) setOutcome({ value: answer.value });
  };
  if (outcome) return <div role="status">{done(outcome.value)}</div>;
  return (
    <>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <Button look="go" busy={busy} busyWords={busyWords} onClick={() => void press()}>
        {action}
      </Button>
    </>
  );
}

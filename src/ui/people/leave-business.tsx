'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { send, troubleOf } from '../kit/send';

/** Leaves the business, after it was asked about. */
export function LeaveBusiness({ business }: { business: string }) {
  const [asks, setAsks] = useState(false);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const leave = async () => {
    setBusy(true);
    const answer = await send('POST', '/api/people/leave', {});
    if (answer.ok) return location.assign('/sign-in');
    setBusy(false);
    setTrouble(troubleOf(answer));
  };
  if (!asks)
    return (
      <Button look="link" onClick={() => setAsks(true)}>
        Leave {business}
      </Button>
    );
  return (
    <div>
      <p className="bg-brick-tint px-3 py-2">
        You are signed out and come in no more until somebody invites you. What you made keeps your name.
      </p>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <p className="mt-3 flex gap-4">
        <Button look="sure" busy={busy} onClick={() => void leave()}>
          Leave {business}
        </Button>
        <Button look="link" onClick={() => setAsks(false)}>
          Stay
        </Button>
      </p>
    </div>
  );
}

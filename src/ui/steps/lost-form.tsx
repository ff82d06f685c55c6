'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { FieldError } from '../kit/field';
import { send, troubleOf } from '../kit/send';

/** Says that every second step is lost: pressed by a person, since programs that look through mail follow every link. */
export function LostForm({ token }: { token: string }) {
  const [state, setState] = useState<'asked' | 'busy' | 'done'>('asked');
  const [trouble, setTrouble] = useState('');
  const begin = async () => {
    setState('busy');
    const answer = await send('POST', '/api/lost', { token });
    setTrouble(troubleOf(answer));
    setState(answer.ok ? 'done' : 'asked');
  };
  if (state === 'done')
    return (
      <p className="document" role="status">
        The wait has begun; a mail says until when. Whichever of them turns up meanwhile still signs you in, and ends
        it.
      </p>
    );
  return (
    <>
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <Button look="go" busy={state === 'busy'} busyWords="One moment" onClick={() => void begin()}>
        They are all lost
      </Button>
    </>
  );
}

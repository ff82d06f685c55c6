'use client';
import { useEffect, useRef, useState } from 'react';
import type { Way } from '@/core/person/steps';
import { asksAgain } from '../kit/asked-again';
import { Dialog } from '../kit/dialog';
import { send } from '../kit/send';
import { sayTrouble } from '../kit/toasts';
import { StepForm } from './step-form';

/** Stands around a screen, and asks whoever sends something that cannot be taken back to show once more who they are. */
export function AskAgain() {
  const [ways, setWays] = useState<readonly (Way | 'password')[] | null>(null);
  const waiting = useRef<((shown: boolean) => void) | null>(null);
  const end = (shown: boolean) => {
    waiting.current?.(shown);
    waiting.current = null;
    setWays(null);
  };
  useEffect(
    () =>
      asksAgain(async () => {
        const answer = await send<readonly (Way | 'password')[]>('GET', '/api/prove');
        if (!answer.ok) {
          sayTrouble(answer.words);
          return false;
        }
        // Asked for two things at once: the first is left.
        waiting.current?.(false);
        setWays(answer.value);
        return new Promise((resolve) => {
          waiting.current = resolve;
        });
      }),
    [],
  );
  if (!ways) return null;
  return (
    <Dialog
      open
      title="Show that it is you"
      about="This cannot be taken back. Then nobody asks again for five minutes."
      onOpenChange={(open) => open || end(false)}
    >
      <StepForm
        ways={ways}
        ask={{ path: '/api/prove/passkey', body: {} }}
        action="Go on"
        onGiven={async (given) => {
          const answer = await send('POST', '/api/prove', given);
          if (answer.ok) end(true);
          return answer;
        }}
      />
    </Dialog>
  );
}

'use client';
import { Button } from '../kit/button';
import { send } from '../kit/send';
import { Toasts } from '../kit/toasts';
import { AskAgain } from './ask-again';
import { type ShownSteps, StepsPanel } from './steps-panel';

/** Sets the first second step up, and leads to the desk. */
export function SetUpFirst({ steps }: { steps: ShownSteps }) {
  const signOut = async () => {
    await send('POST', '/api/sign-out', {});
    location.assign('/sign-in');
  };
  return (
    <>
      <StepsPanel steps={steps} onFirst={() => location.assign('/today')} />
      <p className="mt-6">
        <Button look="link" onClick={() => void signOut()}>
          Sign out
        </Button>
      </p>
      <AskAgain />
      <Toasts />
    </>
  );
}

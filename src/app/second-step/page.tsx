import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { currentActor } from '@/app/session';
import { shownSteps } from '@/app/shown-steps';
import { FrontFrame, FrontSheet } from '@/ui/house/front-frame';
import { SetUpFirst } from '@/ui/steps/set-up-first';

export const metadata: Metadata = { title: 'A second step' };

/** The screen of who may not see the business's setting yet: its days are written as the house does. */
const PLAIN = { zone: 'UTC', deskLocale: 'en-US' };

export default async function SecondStepPage() {
  const actor = await currentActor();
  if (!actor) redirect('/sign-in');
  if (!actor.lacksStep) redirect('/today');
  const steps = await shownSteps(actor, PLAIN);
  return (
    <FrontFrame>
      <FrontSheet
        title="A second step"
        about={`${actor.name}, your business asks everybody for one when signing in. Set one up, then go on.`}
      >
        <SetUpFirst steps={steps} />
      </FrontSheet>
    </FrontFrame>
  );
}

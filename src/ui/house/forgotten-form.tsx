'use client';
import { useState } from 'react';
import { Button } from '../kit/button';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';
import { AddressField, NewPasswordField } from './access-fields';

async function askedFor(body: object) {
  const { doneWork } = await import('../payer/work');
  const work = await doneWork('/api/forgotten/challenge');
  return send<null>('POST', '/api/forgotten', work ? { ...body, work } : body);
}

/** Asks for a link under which a new password is chosen. */
export function ForgottenForm() {
  const [sentTo, setSentTo] = useState('');
  const form = useTyped({
    start: { email: '' },
    shape: () => import('@/input/people-input').then(({ ForgottenInput }) => ForgottenInput),
    send: askedFor,
    done: (_, { email }) => setSentTo(email),
  });
  if (sentTo)
    return (
      <p role="status" className="document">
        If <b className="font-semibold">{sentTo}</b> signs in here, a link is on its way there. It is good once, for an
        hour.
      </p>
    );
  return (
    <Form
      of={form}
      legend="Forgotten password"
      actions={
        <Button type="submit" look="go" busy={form.busy} busyWords="Sending it">
          Send the link
        </Button>
      }
    >
      <AddressField value={form.values.email} error={form.at('email')} onType={(email) => form.set({ email })} />
    </Form>
  );
}

/** A new password under the link of the mail. */
export function ChosenPasswordForm({ token, email }: { token: string; email: string }) {
  const [isDone, setDone] = useState(false);
  const form = useTyped({
    start: { token, fresh: '' },
    shape: () => import('@/input/people-input').then(({ ChosenPasswordInput }) => ChosenPasswordInput),
    send: (body) => send('POST', '/api/forgotten/choose', body),
    done: () => setDone(true),
  });
  if (isDone)
    return (
      <div role="status">
        <p className="document">The new password holds. You are signed out everywhere.</p>
        <Button look="go" className="mt-4" onClick={() => location.assign('/sign-in')}>
          Sign in
        </Button>
      </div>
    );
  return (
    <Form
      of={form}
      legend="A new password"
      actions={
        <Button type="submit" look="go" busy={form.busy} busyWords="Changing it">
          Change the password
        </Button>
      }
    >
      <input type="hidden" name="username" autoComplete="username" value={email} readOnly />
      <NewPasswordField value={form.values.fresh} error={form.at('fresh')} onType={(fresh) => form.set({ fresh })} />
    </Form>
  );
}

'use client';
import { useState } from 'react';
import { NewPasswordField } from '../house/access-fields';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';

/** Joins a business: by one press where one is signed in, by one's password, or with a name and a new password. */
export function InvitationForm({
  token,
  email,
  business,
  who,
}: {
  token: string;
  email: string;
  business: string;
  who: 'here' | 'known' | 'new';
}) {
  const [leaving, setLeaving] = useState(false);
  const form = useTyped({
    start: { token, name: '', password: '' },
    send: (body) => send('POST', '/api/invitation', body),
    done: () => {
      setLeaving(true);
      location.assign('/today');
    },
  });
  const { values, set, at } = form;
  return (
    <Form
      of={form}
      legend="The invitation"
      actions={
        <Button type="submit" look="go" busy={form.busy || leaving} busyWords="Coming in">
          Work in {business}
        </Button>
      }
    >
      {who === 'new' ? (
        <Field
          label="Your name"
          name="name"
          autoComplete="name"
          value={values.name}
          error={at('name')}
          onChange={(event) => set({ name: event.target.value })}
        />
      ) : null}
      <input type="hidden" name="username" autoComplete="username" value={email} readOnly />
      {who === 'new' ? (
        <NewPasswordField
          label="Password"
          value={values.password}
          error={at('password')}
          onType={(password) => set({ password })}
        />
      ) : null}
      {who === 'known' ? (
        <Field
          label="Your password"
          type="password"
          name="password"
          autoComplete="current-password"
          hint="You sign in here with this address already."
          value={values.password}
          error={at('password')}
          onChange={(event) => set({ password: event.target.value })}
        />
      ) : null}
    </Form>
  );
}

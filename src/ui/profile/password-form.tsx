'use client';
import { NewPasswordField } from '../house/access-fields';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { send } from '../kit/send';
import { say } from '../kit/toasts';

const EMPTY = { old: '', fresh: '' };

/** A new password for whoever is signed in. */
export function PasswordForm() {
  const form = useTyped({
    start: EMPTY,
    shape: async () => (await import('@/input/people-input')).PasswordInput,
    send: (body) => send('PUT', '/api/password', body),
    done: () => {
      form.begin(EMPTY);
      say('The new password holds from now on');
    },
  });
  const { values, set, at } = form;
  return (
    <Form
      of={form}
      legend="Your password"
      actions={
        <Button type="submit" look="go" busy={form.busy} busyWords="Changing it">
          Change the password
        </Button>
      }
    >
      <Field
        label="Password so far"
        type="password"
        name="old"
        autoComplete="current-password"
        value={values.old}
        error={at('old')}
        onChange={(event) => set({ old: event.target.value })}
      />
      <NewPasswordField value={values.fresh} error={at('fresh')} onType={(fresh) => set({ fresh })} />
    </Form>
  );
}

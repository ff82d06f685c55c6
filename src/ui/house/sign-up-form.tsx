'use client';
import { useEffect, useState } from 'react';
import type { FirstSetting } from '@/core/beginning/first-setting';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { type Answer, send } from '../kit/send';
import { AddressField, NewPasswordField } from './access-fields';
import { type Place, SettingFields } from './setting-fields';

type Begun = { readonly invoiceId: string | null };

const rules = () => import('@/input/people-input').then(({ SignUpInput }) => SignUpInput);

/** Does the work that is asked of a computer first, then sends. */
async function signedUp(body: object): Promise<Answer<Begun>> {
  const { doneWork } = await import('../payer/work');
  const work = await doneWork('/api/sign-up/challenge');
  return send<Begun>('POST', '/api/sign-up', work ? { ...body, work } : body);
}

/** Four answers, and one is at the desk. */
export function SignUpForm({ first, countries }: { first: FirstSetting; countries: readonly Place[] }) {
  const [key] = useState(() => crypto.randomUUID());
  const [leaving, setLeaving] = useState(false);
  const form = useTyped({
    start: { key, name: '', business: '', email: '', password: '', ...first },
    shape: rules,
    send: signedUp,
    done: ({ invoiceId }: Begun) => {
      setLeaving(true);
      location.assign(invoiceId ? `/ask/compose/${invoiceId}` : '/today');
    },
  });
  const { values, set, at } = form;

  // The browser knows its zone, which the request does not say.
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the page comes up
  useEffect(() => {
    const { timeZone } = new Intl.DateTimeFormat().resolvedOptions();
    const asked = new URLSearchParams({ zone: timeZone, languages: navigator.languages.join(',').slice(0, 200) });
    void send<FirstSetting>('GET', `/api/sign-up/setting?${asked}`).then((answer) => answer.ok && set(answer.value));
  }, []);

  return (
    <Form
      of={form}
      legend="Beginning"
      actions={
        <Button type="submit" look="go" busy={form.busy || leaving} busyWords="Getting your desk ready">
          Write your first invoice
        </Button>
      }
    >
      <Field
        label="Your name"
        name="name"
        autoComplete="name"
        value={values.name}
        error={at('name')}
        onChange={(event) => set({ name: event.target.value })}
      />
      <Field
        label="Your business"
        name="organization"
        autoComplete="organization"
        hint="As your customers know it. It can be your own name."
        value={values.business}
        error={at('business')}
        onChange={(event) => set({ business: event.target.value })}
      />
      <AddressField value={values.email} error={at('email')} onType={(email) => set({ email })} />
      <NewPasswordField
        label="Password"
        value={values.password}
        error={at('password')}
        onType={(password) => set({ password })}
      />
      <SettingFields from="Taken from your browser" values={values} set={set} countries={countries} />
    </Form>
  );
}
